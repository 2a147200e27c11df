// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "open/openbuild.h"
#include "shell/panel.h"

#include <initializer_list>

namespace mildpath {

/// How a number of a file's unit is entered and shown.
struct FieldShape
{
    Dimension dimension;
    std::string unit; ///< shown, in the metric system
    double siPerFile; ///< file unit → SI
    int decimals;
};
enum class Fineness { Given, Measured };
/// @param unit  of the file; one that is not known: a plain number
FieldShape fieldShape(std::string_view unit, Fineness fineness = Fineness::Given);

/// A field of the side panel for a number of a stop (see stopKeys()); an absent one shows empty.
PanelField stopValueField(OpenBuild &open, const Stop &stop, const std::string &key);

/// A field for a limit of a family.
PanelField limitField(OpenBuild &open, const std::string &family, const char *key,
                      const QString &label);

/// A panel field for a key of Use.
PanelField useField(OpenBuild &open, const char *key, const QString &label);
/// A panel field for a number of the sump; empty where nothing is entered. What is taken instead,
/// and why, stands with it.
PanelField sumpField(OpenBuild &open, const NumberKey &key);
/// The same for a number of the start.
PanelField startField(OpenBuild &open, const NumberKey &key);
/// The same for a number of bore finish or of what is looked at after a run (see sectionKeys()).
PanelField sectionField(OpenBuild &open, const char *section, std::string_view key);
/// "Working": formula and source of calculators, from their one definition.
void addWorking(PanelContent &out, std::initializer_list<const char *> calculators);
/// Coolant or fuel in the oil: not said, none, suspected, confirmed.
PanelChoice foreignChoice(OpenBuild &open, bool fuel);
/// A panel field for a key of Heat; without a label it bears the key's meaning.
PanelField heatField(OpenBuild &open, const char *key, const QString &label = {});

} // namespace mildpath
