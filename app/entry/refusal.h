// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"

#include <QString>

class QWidget;

namespace mildpath {

/// Says beside a widget why something was not done; gone with the next click or key, or by itself.
/// @param beside  null: what has the focus, else the window
void sayRefusal(const QString &why, QWidget *beside = nullptr);

/// The same for an error. "place: reason"
void sayRefusal(const Error &why, QWidget *beside = nullptr);

/// Passes a result on; a refusal is said beside the widget that asked for it.
/// @return whether it was done
template <class T> bool saidIfRefused(const Result<T> &result, QWidget *beside = nullptr)
{
    if (!result)
        sayRefusal(result.error(), beside);
    return result.has_value();
}

} // namespace mildpath
