// SPDX-License-Identifier: GPL-3.0-or-later
#include "shell/stopfields.h"

#include "calc/catalogue.h"
#include "quantity/rounding.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

struct Shape
{
    Dimension dimension;
    std::string unit;
    double siPerFile; ///< file unit → SI
    int decimals;
};

/// What a key's suffix says of its field.
Shape shapeOf(const std::string &key)
{
    if (key.ends_with("_um"))
        return { Dimension::Length, "µm", 1e-6, 0 };
    if (key.ends_with("_mm"))
        return { Dimension::Length, "mm", 1e-3, 2 };
    if (key.ends_with("_mm2"))
        return { Dimension::Area, "mm²", 1e-6, 2 };
    if (key.ends_with("_deg"))
        return { Dimension::Number, "", 1, 0 };
    return { Dimension::Number, "", 1, key.starts_with("oring") || key.ends_with("_mm") ? 2 : 1 };
}

/// What a unit of the file says of its field.
Shape shapeOfUnit(std::string_view unit)
{
    if (unit == "°C")
        return { Dimension::Temperature, "°C", 1, 0 };
    if (unit == "K")
        return { Dimension::TemperatureDifference, "K", 1, 0 };
    if (unit == "s")
        return { Dimension::Time, "s", 1, 0 };
    if (unit == "rev/min")
        return { Dimension::Speed, "rev/min", 1, 0 };
    if (unit == "kPa")
        return { Dimension::Pressure, "bar", 1e3, 2 };
    if (unit == "µm")
        return { Dimension::Length, "µm", 1e-6, 0 };
    if (unit == "mm")
        return { Dimension::Length, "mm", 1e-3, 1 };
    if (unit == "m")
        return { Dimension::Length, "m", 1, 2 };
    if (unit == "mm²")
        return { Dimension::Area, "mm²", 1e-6, 0 };
    if (unit == "l")
        return { Dimension::Volume, "l", 1e-3, 2 };
    if (unit == "°")
        return { Dimension::Number, "", 1, 0 };
    if (unit == "l/min")
        return { Dimension::VolumeFlow, "l/min", 1.0 / litresPerMinute, 1 };
    return { Dimension::Number, "", 1, 2 };
}

/// A field for one row of a table of settings.
template <class SettingEdit, class Settings>
PanelField settingField(OpenBuild &open, const char *group, const Field &key,
                        const Settings &settings, const QString &label)
{
    const Shape shape = shapeOfUnit(key.unit);
    return { QLatin1String(group) + u'.' + qs(key.key),
             label,
             shape.dimension,
             shape.unit,
             shape.decimals,
             key.number(&settings) * shape.siPerFile,
             [&open, id = std::string(key.key), shape](double si) {
                 return open.edit(SettingEdit { id, std::round(si / shape.siPerFile * 1e4) / 1e4 });
             } };
}

/// A number that may be left out: what is taken instead, and why, stands with it.
/// @param own  as entered, in the file's unit
PanelField valueField(const char *group, const ValueKey &key, bool withSource,
                      std::optional<double> own, std::function<Result<void>(double file)> store)
{
    const Shape shape = shapeOfUnit(key.unit);
    QString label = qs(key.meaning);
    if (shape.dimension == Dimension::Number && !key.unit.empty())
        label += QStringLiteral(", ") + qs(key.unit);
    if (!own && key.usual)
        label += withSource
            ? QObject::tr(" (else %1; %2)").arg(inFileUnit(*key.usual, key.unit), qs(key.source))
            : QObject::tr(", else %1").arg(inFileUnit(*key.usual, key.unit));
    return { QLatin1String(group) + u'.' + qs(key.key),
             label,
             shape.dimension,
             shape.unit,
             shape.decimals,
             own ? std::optional(*own * shape.siPerFile) : std::nullopt,
             [shape, store = std::move(store)](double si) {
                 return store(std::round(si / shape.siPerFile * 1e6) / 1e6);
             } };
}

} // namespace

PanelField useField(OpenBuild &open, const char *key, const QString &label)
{
    return settingField<SetUse>(open, "use", *recordType<Use>().find(key), open.build().use, label);
}

PanelField sumpField(OpenBuild &open, const SumpKey &key)
{
    return valueField("sump", key, true, open.build().sump.own(key.key),
                      [&open, id = std::string(key.key)](double file) {
                          return open.edit(SumpEdit(SetSumpValue { id, file }));
                      });
}

PanelField startField(OpenBuild &open, const ValueKey &key)
{
    return valueField("start", key, false, open.build().start.own(key.key),
                      [&open, id = std::string(key.key)](double file) {
                          return open.edit(SetStartValue { id, file });
                      });
}

PanelField sectionField(OpenBuild &open, const char *section, std::string_view key)
{
    const ValueKey &k = *findValueKey(sectionKeys(section), key);
    const auto &values
        = (section == std::string_view("finish") ? open.build().finish : open.build().after).values;
    PanelField out
        = valueField(section, k, false, ownValue(values, key),
                     [&open, name = std::string(section), id = std::string(key)](double file) {
                         return open.edit(SetSectionValue { name, id, file });
                     });
    // Heights of a surface are no clearances: micrometres in any system, to the nanometre.
    if (k.unit == "µm" && k.most <= 10) {
        out.unit = "µm";
        out.decimals = 3;
    } else if (k.unit == "µm³/µm²")
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
        return open.edit(SumpEdit(SetForeign {
            fuel, i == 0 ? "" : std::string(foreignWords()[static_cast<size_t>(i - 1)]) }));
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
    const StopKey &definition = *findStopKey(stop.kind, key);
    const Shape shape = shapeOf(key);
    QString label = qs(definition.meaning);
    if (key.ends_with("_n_per_mm"))
        label += QStringLiteral(", N/mm");
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
             } };
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
