// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLineEdit>

namespace mildpath {

/// A line of text that ends in "…" where it has no room, as long as nobody types in it.
class NameField : public QLineEdit
{
    Q_OBJECT
public:
    using QLineEdit::QLineEdit;

protected:
    void paintEvent(QPaintEvent *event) override;
};

} // namespace mildpath
