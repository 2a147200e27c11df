// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/panel.h"

namespace mildpath {

/// A widget for an item of the side panel that is only looked at.
QWidget *makeItemView(PanelItem item, QWidget *parent);
/// Another item in a widget that makeItemView() made.
void setItem(QWidget *view, PanelItem item);

} // namespace mildpath
