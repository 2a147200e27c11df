// SPDX-License-Identifier: GPL-3.0-or-later
#include "entry/quantityfield.h"

#include "paint/figure.h"
#include "quantity/rounding.h"

#include <QKeyEvent>
#include <QLocale>
#include <QMouseEvent>
#include <QRegularExpression>
#include <QStyle>

#include <cmath>
#include <utility>

namespace mildpath {
namespace {

/// A number to read and to type over: without marks between thousands, with a real minus.
QString typedNumber(double number, int decimals)
{
    return qs(formatPlain(number, decimals)).replace(u'-', QChar(0x2212));
}

} // namespace

Result<QString> withoutComma(const QString &text, const QLocale &locale)
{
    if (!text.contains(u','))
        return text;
    static const QRegularExpression number(
        QStringLiteral("^\\s*[+\u2212-]?(\\d+),(\\d+)(\\D.*)?$"));
    const auto match = number.match(text);
    if (!match.hasMatch())
        return fail("", "\"" + text.toStdString() + "\" is not a number");
    QString pointed = text;
    pointed.replace(u',', u'.');
    const bool decimalComma = locale.decimalPoint() == QStringLiteral(",");
    if (decimalComma || match.captured(2).size() != 3)
        return pointed;
    QString joined = text;
    joined.remove(u',');
    return fail("",
                "\"" + text.toStdString() + "\" may be " + pointed.trimmed().toStdString() + " or "
                    + joined.trimmed().toStdString() + "; write it without the comma");
}

QuantityField::QuantityField(Dimension dimension, std::string unit, QWidget *parent)
    : QLineEdit(parent)
    , m_dimension(dimension)
    , m_unit(std::move(unit))
    , m_shown(shownField(m_unit, m_decimals, Figure::system()))
{
    setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    connect(this, &QLineEdit::textEdited, this, [this] {
        markRefused(false);
        const auto si = read();
        const bool fits = si && (!m_check || m_check(*si));
        Q_EMIT understood(
            fits ? qs(formatNumber(toUnit(*si, m_shown.unit, m_dimension), m_shown.decimals)) + u' '
                    + qs(m_shown.unit)
                 : QString());
    });
}

void QuantityField::setUnit(const std::string &unit)
{
    // Refreshing with the same unit must not take away what is being typed.
    if (unit == m_unit)
        return;
    m_unit = unit;
    followUnits();
}

void QuantityField::followUnits()
{
    const ShownField now = shownField(m_unit, m_decimals, Figure::system());
    if (now.unit == m_shown.unit && now.decimals == m_shown.decimals)
        return;
    m_shown = now;
    showValue();
    Q_EMIT unitChanged();
}

void QuantityField::setDecimals(int decimals)
{
    if (decimals == m_decimals)
        return;
    m_decimals = decimals;
    followUnits();
}

void QuantityField::setValue(std::optional<double> si)
{
    m_value = si;
    showValue();
}

void QuantityField::showValue()
{
    markRefused(false);
    const QString shown = m_value
        ? typedNumber(toUnit(*m_value, m_shown.unit, m_dimension), m_shown.decimals)
        : QString();
    if (shown != text())
        setText(shown);
    setModified(false);
}

void QuantityField::markRefused(bool refused)
{
    if (property("refused").toBool() == refused)
        return;
    setProperty("refused", refused);
    style()->unpolish(this);
    style()->polish(this);
}

Result<double> QuantityField::read() const
{
    const auto pointed = withoutComma(text(), locale());
    if (!pointed)
        return tl::unexpected(pointed.error());
    const auto parsed = parseQuantity(pointed->toStdString(), m_dimension, m_shown.unit);
    if (!parsed)
        return tl::unexpected(parsed.error());
    return parsed->si;
}

void QuantityField::store(Way way)
{
    if (!isModified()) {
        if (way == Way::Enter)
            Q_EMIT moveOn();
        return;
    }
    if (text().trimmed().isEmpty()) {
        setModified(false);
        if (m_value && way == Way::Enter)
            Q_EMIT cleared();
        else
            showValue();
        return;
    }
    const auto si = read();
    Result<void> ok;
    if (!si)
        ok = tl::unexpected(si.error());
    else if (m_check)
        ok = m_check(*si);
    if (!ok) {
        // Leaving puts the old value back; Enter leaves the text to be mended.
        if (way == Way::Leave)
            showValue();
        else
            markRefused(true);
        Q_EMIT refused(qs(ok.error().message));
        return;
    }
    m_value = *si;
    showValue();
    Q_EMIT entered(*si, way == Way::Enter);
}

void QuantityField::nudge(double steps)
{
    const auto si = read();
    if (!si)
        return;
    // A nudge in another unit is the next round step of that one.
    const double step = m_shown.unit == m_unit ? m_nudge : std::pow(10.0, -m_shown.decimals);
    setText(typedNumber(toUnit(*si, m_shown.unit, m_dimension) + steps * step, m_shown.decimals));
    setModified(true);
    Q_EMIT textEdited(text());
}

void QuantityField::keyPressEvent(QKeyEvent *event)
{
    switch (event->key()) {
    case Qt::Key_Return:
    case Qt::Key_Enter:
        store(Way::Enter);
        return;
    case Qt::Key_Up:
        nudge(1);
        return;
    case Qt::Key_Down:
        nudge(-1);
        return;
    case Qt::Key_Escape:
        showValue();
        selectAll();
        Q_EMIT understood(QString());
        return;
    case Qt::Key_Backspace:
        if (text().isEmpty()) {
            Q_EMIT goBack();
            return;
        }
        break;
    default:
        break;
    }
    QLineEdit::keyPressEvent(event);
}

void QuantityField::focusInEvent(QFocusEvent *event)
{
    QLineEdit::focusInEvent(event);
    selectAll();
    m_clickedInto = event->reason() == Qt::MouseFocusReason;
}

/// A click into a filled field takes the place of what is there, like a Tab into it; only the next
/// one sets a cursor. Else "4" typed into 41.1 becomes 441.1.
void QuantityField::mousePressEvent(QMouseEvent *event)
{
    QLineEdit::mousePressEvent(event);
    if (std::exchange(m_clickedInto, false))
        selectAll();
}

void QuantityField::focusOutEvent(QFocusEvent *event)
{
    QLineEdit::focusOutEvent(event);
    if (event->reason() != Qt::PopupFocusReason)
        store(Way::Leave);
}

void nameWithUnit(QLabel *text, const QString &label, const QuantityField *field)
{
    const auto say = [text, label, field] {
        const QString unit = qs(field->shownUnit());
        text->setText(label.isEmpty()      ? unit
                          : unit.isEmpty() ? label
                                           : label + QStringLiteral(", ") + unit);
    };
    QObject::connect(field, &QuantityField::unitChanged, text, say);
    say();
}

} // namespace mildpath
