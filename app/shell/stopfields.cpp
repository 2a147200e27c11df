// SPDX-License-Identifier: GPL-3.0-or-later
#include "shell/stopfields.h"

#include "calc/catalogue.h"
#include "quantity/rounding.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace mildpath {

FieldShape fieldShape(std::string_view unit, Fineness fineness)
{
    struct Row
    {
        std::string_view unit;
        FieldShape shape;
        int measured; ///< decimals of what was measured
    };
    static const std::array rows {
        Row { "°C", { Dimension::Temperature, "°C", 1, 0 }, 0 },
        Row { "K", { Dimension::TemperatureDifference, "K", 1, 0 }, 0 },
        Row { "s", { Dimension::Time, "s", 1, 0 }, 0 },
        Row { "rev/min", { Dimension::Speed, "rev/min", 1, 0 }, 0 },
        Row { "kPa", { Dimension::Pressure, "bar", 1e3, 2 }, 2 },
        Row { "µm", { Dimension::Length, "µm", 1e-6, 0 }, 0 },
        Row { "mm", { Dimension::Length, "mm", 1e-3, 1 }, 2 },
        Row { "m", { Dimension::Length, "m", 1, 2 }, 2 },
        Row { "mm²", { Dimension::Area, "mm²", 1e-6, 0 }, 2 },
        Row { "l", { Dimension::Volume, "l", 1e-3, 2 }, 2 },
        Row { "°", { Dimension::Number, "", 1, 0 }, 0 },
        Row { "l/min", { Dimension::VolumeFlow, "l/min", 1.0 / litresPerMinute, 1 }, 1 },
    };
    const auto row = std::ranges::find(rows, unit, &Row::unit);
    FieldShape out = row == rows.end() ? FieldShape { Dimension::Number, "", 1, 2 } : row->shape;
    if (row != rows.end() && fineness == Fineness::Measured)
        out.decimals = row->measured;
    return out;
}

namespace {

/// A field for one row of a table of settings.
template <class SettingEdit, class Settings>
PanelField settingField(OpenBuild &open, const char *group, const Field &key,
                        const Settings &settings, const QString &label)
{
    const FieldShape shape = fieldShape(key.unit);
    const std::optional<double> entered = key.entered(&settings);
    return { QLatin1String(group) + u'.' + qs(key.key),
             label,
             shape.dimension,
             shape.unit,
             shape.decimals,
             entered ? std::optional(*entered * shape.siPerFile) : std::nullopt,
             [&open, id = std::string(key.key), shape](double si) {
                 return open.edit(SettingEdit { id, std::round(si / shape.siPerFile * 1e4) / 1e4 });
             },
             qs(key.about()) };
}

/// A number that may be left out: what is taken instead, and why, stands with it.
/// @param own  as entered, in the file's unit
PanelField valueField(const char *group, const NumberKey &key, bool withSource,
                      std::optional<double> own, std::function<Result<void>(double file)> store)
{
    const FieldShape shape = fieldShape(key.unit());
    QString label = qs(key.meaning);
    if (shape.dimension == Dimension::Number && !key.unit().empty())
        label += QStringLiteral(", ") + qs(key.unit());
    if (!own && key.usual)
        label += withSource
            ? QObject::tr(" (else %1; %2)").arg(inFileUnit(*key.usual, key.unit()), qs(key.source))
            : QObject::tr(", else %1").arg(inFileUnit(*key.usual, key.unit()));
    return { QLatin1String(group) + u'.' + qs(key.key),
             label,
             shape.dimension,
             shape.unit,
             shape.decimals,
             own ? std::optional(*own * shape.siPerFile) : std::nullopt,
             [shape, store = std::move(store)](double si) {
                 return store(std::round(si / shape.siPerFile * 1e6) / 1e6);
             },
             qs(key.about()) };
}

} // namespace

PanelField useField(OpenBuild &open, const char *key, const QString &label)
{
    return settingField<SetUse>(open, "use", *recordType<Use>().find(key), open.build().use, label);
}

PanelField sumpField(OpenBuild &open, const NumberKey &key)
{
    return valueField("sump", key, true, open.build().sump.own(key.key),
                      [&open, id = std::string(key.key)](double file) {
                          return open.edit(SetSumpValue { id, file });
                      });
}

PanelField startField(OpenBuild &open, const NumberKey &key)
{
    return valueField("start", key, false, open.build().start.own(key.key),
                      [&open, id = std::string(key.key)](double file) {
                          return open.edit(SetStartValue { id, file });
                      });
}

PanelField sectionField(OpenBuild &open, const char *section, std::string_view key)
{
    const NumberKey &k = *findKey(sectionKeys(section), key);
    const auto &values
        = (section == std::string_view("finish") ? open.build().finish : open.build().after).values;
    PanelField out
        = valueField(section, k, false, ownValue(values, key),
                     [&open, name = std::string(section), id = std::string(key)](double file) {
                         return open.edit(SetSectionValue { name, id, file });
                     });
    // Heights of a surface are no clearances: micrometres in any system, to the nanometre.
    if (k.unit() == "µm" && k.most <= 10) {
        out.unit = "µm";
        out.decimals = 3;
    } else if (k.unit() == "µm³/µm²")
        out.decimals = 3;
    return out;
}

void addWorking(PanelContent &out, std::initializer_list<const char *> calculators)
{
    out.push_back(PanelHeading { QObject::tr("Working") });
    for (const char *name : calculators) {
        const Calculator *w = findCalculator(name);
        out.push_back(PanelText { qs(w->formula) });
        out.push_back(PanelText { qs(w->source), Tone::Muted });
    }
}

PanelChoice foreignChoice(OpenBuild &open, bool fuel)
{
    const std::string &word = fuel ? open.build().sump.fuel : open.build().sump.coolant;
    PanelChoice out { fuel ? QStringLiteral("sump.fuel") : QStringLiteral("sump.coolant"),
                      fuel ? QObject::tr("Fuel in the oil") : QObject::tr("Coolant in the oil"),
                      { QObject::tr("not said") },
                      0,
                      {} };
    for (const std::string_view w : foreignWords()) {
        out.options << qs(w);
        if (w == word)
            out.current = static_cast<int>(out.options.size()) - 1;
    }
    out.chosen = [&open, fuel](int i) {
        return open.edit(SetForeign {
            fuel, i == 0 ? "" : std::string(foreignWords()[static_cast<size_t>(i - 1)]) });
    };
    return out;
}

PanelField heatField(OpenBuild &open, const char *key, const QString &label)
{
    const Field &k = *recordType<Heat>().find(key);
    return settingField<SetHeat>(open, "heat", k, open.build().heat,
                                 label.isEmpty() ? qs(k.meaning) : label);
}

PanelField stopValueField(OpenBuild &open, const Stop &stop, const std::string &key)
{
    const NumberKey &definition = *findStopKey(stop.kind, key);
    const FieldShape shape = fieldShape(definition.unit(), Fineness::Measured);
    QString label = qs(definition.meaning);
    if (shape.dimension == Dimension::Number && definition.unit() != "°"
        && !definition.unit().empty())
        label += QStringLiteral(", ") + qs(definition.unit());
    std::optional<double> value;
    if (stop.has(key))
        value = stop.value(key) * shape.siPerFile;
    return { QStringLiteral("stop.") + qs(stop.id) + u'.' + qs(key),
             label,
             shape.dimension,
             shape.unit,
             shape.decimals,
             value,
             [&open, id = stop.id, key, shape](double si) {
                 // Nine digits: what was typed, without the noise of changing units.
                 const double file = std::round(si / shape.siPerFile * 1e6) / 1e6;
                 return open.edit(SetStopValue { id, key, file });
             },
             qs(definition.about()) };
}

PanelField limitField(OpenBuild &open, const std::string &family, const char *key,
                      const QString &label)
{
    std::optional<double> um;
    if (const auto it = open.build().limits.find(family); it != open.build().limits.end()) {
        const Limits &l = it->second;
        um = key == std::string_view("min_um")  ? std::optional(l.min_um)
            : key == std::string_view("max_um") ? std::optional(l.max_um)
                                                : l.target_um;
    }
    return { qs("limit." + family + "." + key),
             label,
             Dimension::Length,
             "µm",
             1,
             um ? std::optional(*um * 1e-6) : std::nullopt,
             [&open, family, key](double si) {
                 return open.edit(SetLimit { family, key, std::round(si * 1e10) / 1e4 });
             } };
}

} // namespace mildpath
