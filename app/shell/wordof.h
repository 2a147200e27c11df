// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "paint/text.h"
#include "shell/panel.h"

#include <string>

namespace mildpath {

/// A word of what is being typed, stored as it is typed, without blanks around it.
/// @param typed  must outlive the panel's content
template <class T>
PanelWord wordOf(T &typed, const char *id, const QString &label, std::string T::*which)
{
    return { QString::fromLatin1(id), label, qs(typed.*which),
             [&typed, which](const QString &text) -> Result<void> {
                 typed.*which = text.trimmed().toStdString();
                 return {};
             } };
}

} // namespace mildpath
