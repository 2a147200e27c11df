// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/editkind.h"

#include <array>

namespace mildpath {

template <> const RecordType &recordType<SetPan>()
{
    static const RecordType type
        = Describe<SetPan>("pan")
              .field<&SetPan::along>("along_mm", "section along the engine")
              .rows("a pair of numbers")
              .field<&SetPan::across>("across_mm", "section across the engine")
              .rows("a pair of numbers")
              .field<&SetPan::benchFill>("bench_fill", "litres poured in and how high they stood")
              .rows("a height in mm and litres")
              .field<&SetPan::shape>("shape", "the usual shape it was made from")
              .field<&SetPan::values>("values", "numbers that go with the sections");
    return type;
}

template <> const EditKind &editKind<SetPan>()
{
    static const EditKind kind = kindOf<SetPan>(
        [](Build build, const SetPan &e) -> Result<Build> {
            Sump &s = build.sump;
            s.along = e.along;
            s.across = e.across;
            s.benchFill = e.benchFill;
            s.shape = e.shape;
            for (const auto &[key, value] : e.values)
                s.values[key] = value;
            return build;
        },
        [](const Build &, const SetPan &e) -> Phrase {
            for (const PanShape &s : panShapes())
                if (s.id == e.shape)
                    return "pan " + std::string(s.name);
            return e.benchFill.empty() ? "section of the pan" : "pan from litres and heights";
        });
    return kind;
}

template <> const RecordType &recordType<SetSumpValue>()
{
    static const RecordType type
        = Describe<SetSumpValue>("sump")
              .must<&SetSumpValue::key>("key", "of the sump")
              .field<&SetSumpValue::value>("value", "in the key's unit; null takes it away");
    return type;
}

template <> const EditKind &editKind<SetSumpValue>()
{
    static const EditKind kind = kindOf<SetSumpValue>(
        [](Build build, const SetSumpValue &e) -> Result<Build> {
            if (auto ok = setValue(build.sump.values, sumpKeys(), "sump", e.key, e.value); !ok)
                return tl::unexpected(ok.error());
            return build;
        },
        [](const Build &, const SetSumpValue &e) -> Phrase {
            return describeValue(sumpKeys(), e.key, e.value);
        });
    return kind;
}

template <> const RecordType &recordType<SetForeign>()
{
    static const RecordType type
        = Describe<SetForeign>("foreign")
              .field<&SetForeign::fuel>("fuel", "fuel; else coolant")
              .field<&SetForeign::word>("word", "none, suspected or confirmed");
    return type;
}

template <> const EditKind &editKind<SetForeign>()
{
    static const EditKind kind = kindOf<SetForeign>(
        [](Build build, const SetForeign &e) -> Result<Build> {
            (e.fuel ? build.sump.fuel : build.sump.coolant) = e.word;
            return build;
        },
        [](const Build &, const SetForeign &e) -> Phrase {
            return std::string(e.fuel ? "fuel" : "coolant")
                + " in the oil: " + (e.word.empty() ? "not said" : e.word);
        });
    return kind;
}

std::span<const EditKind *const> sumpEdits()
{
    static const std::array kinds { &editKind<SetPan>(), &editKind<SetSumpValue>(),
                                    &editKind<SetForeign>() };
    return kinds;
}

} // namespace mildpath
