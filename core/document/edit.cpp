// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/dimensions.h"
#include "document/editkind.h"
#include "quantity/json.h"
#include "quantity/jsonreader.h"
#include "rules/rules.h"

#include <algorithm>
#include <array>

namespace mildpath {
namespace {

/// The document, or the first thing the edit made wrong.
Result<Build> checked(Build &&build)
{
    if (auto errors = validateBuild(build); !errors.empty())
        return tl::unexpected(errors.front());
    return std::move(build);
}

/// The edit without a look at what it makes of the whole document.
Result<Build> applied(const Build &build, const Edit &edit)
{
    auto out = edit.kind().apply(build, edit.value());
    if (out)
        followCircuit(*out);
    return out;
}

Result<Build> applyAll(const Build &build, std::span<const Edit> edits)
{
    Build out = build;
    for (const Edit &one : edits) {
        auto next = applied(out, one);
        if (!next)
            return next;
        out = std::move(*next);
    }
    return out;
}

void readEdits(void *record, const Json &json, const std::string &place, std::vector<Error> &errors)
{
    for (size_t i = 0; i < json.size(); ++i) {
        const std::string at = place + "/" + std::to_string(i);
        if (json[i].is_object() && json[i].value("edit", Json()) == "all")
            errors.push_back({ at, "edits made as one cannot be made as one again" });
        else if (auto one = editFromJson(json[i]))
            static_cast<EditAll *>(record)->edits.push_back(std::move(*one));
        else
            errors.push_back({ at + one.error().place, one.error().message });
    }
}

Json writeEdits(const void *record)
{
    Json out = Json::array();
    for (const Edit &one : static_cast<const EditAll *>(record)->edits)
        out.push_back(editToJson(one));
    return out;
}

} // namespace

template <> const RecordType &recordType<EditAll>()
{
    static const RecordType type = Describe<EditAll>("all")
                                       .must<&EditAll::name>("name", "what people call it")
                                       .custom("edits", "in order", readEdits, writeEdits);
    return type;
}

template <> const EditKind &editKind<EditAll>()
{
    static const EditKind kind = kindOf<EditAll>(
        [](const Build &build, const EditAll &e) -> Result<Build> {
            if (std::any_of(e.edits.begin(), e.edits.end(),
                            [](const Edit &one) { return one.as<EditAll>() != nullptr; }))
                return fail("edits", "edits made as one cannot be made as one again");
            return applyAll(build, e.edits);
        },
        [](const Build &, const EditAll &e) -> Phrase { return e.name; });
    return kind;
}

bool Edit::operator==(const Edit &other) const
{
    return m_kind == other.m_kind && m_kind->same(m_edit.get(), other.m_edit.get());
}

std::vector<const EditKind *> editKinds()
{
    std::vector<const EditKind *> out { &editKind<EditAll>() };
    for (const auto &some : { readingEdits(), torqueEdits(), valueEdits(), engineEdits(),
                              passageEdits(), lineEdits(), sumpEdits() })
        out.insert(out.end(), some.begin(), some.end());
    return out;
}

Result<Build> applyEdit(const Build &build, const Edit &edit)
{
    return applied(build, edit).and_then(checked);
}

Result<Build> replayEdits(const Build &build, std::span<const Edit> edits)
{
    return applyAll(build, edits).and_then(checked);
}

Phrase describeEdit(const Build &build, const Edit &edit)
{
    return edit.kind().describe(build, edit.value());
}

Edit settledBy(const Build &build, const TwoValues &two, bool other)
{
    const double value = other ? two.other : countedValue(build, two);
    if (const Plug *plug = findPlug(build.plugs, two.element)) {
        Plug now = *plug;
        now.d_mm = value;
        return PutPlug { now };
    }
    if (two.element != "engine")
        return SetElementValue { two.element, two.key, value };
    const Engine &e = build.engine;
    return SetEngine { "stroke_mm",
                       other ? value * 4e6 / (pi * e.bore_mm * e.bore_mm * e.cylinders)
                             : e.stroke_mm };
}

std::string stopName(const Build &build, const std::string &id)
{
    const Stop *s = build.engine.find(id);
    return s ? s->name : id;
}

Phrase withValue(const std::string &name, double value, std::string_view fileUnit)
{
    return { "", "{0} {1}", { name, ofFileUnit(value, fileUnit) } };
}

Json editToJson(const Edit &edit)
{
    const EditKind &kind = edit.kind();
    Json out = Json::object();
    out["edit"] = kind.record->name;
    out.update(kind.write ? kind.write(edit.value()) : writeRecord(*kind.record, edit.value()));
    return out;
}

Result<Edit> editFromJson(const Json &json)
{
    std::vector<Error> errors;
    JsonReader in(json, "", errors);
    const std::string word = in.text("edit");
    static const std::vector<const EditKind *> kinds = editKinds();
    const auto kind = std::find_if(kinds.begin(), kinds.end(),
                                   [&](const EditKind *k) { return k->record->name == word; });
    if (kind == kinds.end()) {
        if (errors.empty())
            in.error("edit", "unknown edit \"" + word + "\"");
        return tl::unexpected(errors.front());
    }
    const std::shared_ptr<void> edit = (*kind)->make();
    if ((*kind)->read)
        (*kind)->read(edit.get(), json, "", errors);
    else
        readRecord(*(*kind)->record, edit.get(), json, "", errors);
    if (!errors.empty())
        return tl::unexpected(errors.front());
    return Edit(**kind, edit);
}

Result<void> checkReadingValue(const Family &family, double value_um)
{
    const bool runOut = family.id == "run_out";
    if (!(runOut ? value_um >= 0 : value_um > 0))
        return fail("",
                    runOut ? Phrase("a run-out is not below zero")
                           : Phrase("reading.press_fit",
                                    "a clearance is above zero; {0} would be an interference fit",
                                    { asClearance(value_um) }));
    if (!(value_um <= mostClearanceReading_um))
        return fail("",
                    { "reading.too_wide",
                      "{0} cannot be {1} (at most {2})",
                      { asLength(value_um / 1000, 2), family.quantity,
                        asLength(mostClearanceReading_um / 1000, 0) } });
    return {};
}

} // namespace mildpath
