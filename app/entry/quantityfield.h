// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/phrase.h"
#include "quantity/units.h"

#include <QLabel>
#include <QLineEdit>

#include <functional>
#include <optional>

namespace mildpath {

/// A field that takes any unit of its kind ("2.3 thou", "0.058 mm") and, with none, its own.
///
/// Enter stores and asks to move on; Up and Down nudge; Backspace in an empty field goes back;
/// Escape brings the old value back. A value that cannot be is refused: the field keeps the text
/// for mending while it has the focus and the old value otherwise; the reason goes out as
/// refused().
class QuantityField : public QLineEdit
{
    Q_OBJECT
public:
    /// @param unit  metric; people of another system see and type theirs
    QuantityField(Dimension dimension, std::string unit, QWidget *parent = nullptr);

    /// Another metric unit, for a field that holds now this, now that.
    void setUnit(const std::string &unit);
    /// In the metric unit; another one is shown as finely.
    void setDecimals(int decimals);
    /// Takes up the units chosen since.
    void followUnits();
    /// Unit of a bare number and of what is shown.
    const std::string &shownUnit() const { return m_shown.unit; }
    /// What may be stored, asked with the SI value; the message is shown as the reason.
    void setCheck(std::function<Result<void>(double si)> check) { m_check = std::move(check); }
    /// Whether an SI value may be stored.
    Result<void> check(double si) const { return m_check ? m_check(si) : Result<void> {}; }
    /// Shows a stored value; typed text that was not stored is dropped.
    void setValue(std::optional<double> si);
    std::optional<double> value() const { return m_value; }
    /// One step of Up and Down, in the metric unit.
    void setNudge(double step) { m_nudge = step; }

Q_SIGNALS:
    /// Stored by Enter (moveOn) or by leaving the field.
    void entered(double si, bool moveOn);
    /// The stored value was cleared: empty text and Enter.
    void cleared();
    void refused(const QString &reason);
    /// Another unit is shown from now on.
    void unitChanged();
    /// While typing: what the text would be stored as, or empty.
    void understood(const QString &text);
    void goBack();
    void moveOn();

protected:
    void keyPressEvent(QKeyEvent *event) override;
    void focusInEvent(QFocusEvent *event) override;
    void mousePressEvent(QMouseEvent *event) override;
    void focusOutEvent(QFocusEvent *event) override;

private:
    enum class Way { Enter, Leave };
    void store(Way way);
    Result<double> read() const;
    void showValue();
    void markRefused(bool refused);
    void nudge(double steps);

    bool m_clickedInto = false; ///< the click under way brought the focus
    Dimension m_dimension;
    std::string m_unit; ///< metric
    int m_decimals = 1; ///< in it
    ShownField m_shown;
    double m_nudge = 0.5;
    std::optional<double> m_value;
    std::function<Result<void>(double)> m_check;
};

/// "At the meter, °C": a label with the unit its field shows; without words the unit alone. Follows
/// the units that are chosen.
void nameWithUnit(QLabel *text, const QString &label, const QuantityField *field);

/// A decimal comma of the user's language as a point; a comma that may be a thousands mark is
/// refused with both readings named. Errors: the message.
Result<QString> withoutComma(const QString &text, const QLocale &locale);

} // namespace mildpath
