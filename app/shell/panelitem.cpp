// SPDX-License-Identifier: GPL-3.0-or-later
#include "shell/panelitem.h"

#include "paint/marks.h"
#include "paint/text.h"

#include <QFontMetricsF>
#include <QPainter>

#include <algorithm>

namespace mildpath {
QColor toneColour(Tone tone)
{
    const Theme &t = Theme::current();
    switch (tone) {
    case Tone::Muted:
        return t.muted;
    case Tone::Good:
        return t.proven;
    case Tone::Warn:
        return t.lookAgain;
    case Tone::Bad:
        return t.hold;
    case Tone::Plain:
        break;
    }
    return t.ink;
}

namespace {

constexpr double rowHeight = 24;

/// Paints every item that is only looked at; wraps text to its width.
class ItemView : public QWidget
{
public:
    explicit ItemView(PanelItem item, QWidget *parent)
        : QWidget(parent)
    {
        setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
        set(std::move(item));
    }

    void set(PanelItem item)
    {
        m_item = std::move(item);
        setAccessibleName(spoken());
        if (const auto *row = std::get_if<PanelRow>(&m_item))
            setToolTip(row->tip);
        fit();
        QWidget::update();
    }

protected:
    void resizeEvent(QResizeEvent *) override { fit(); }

    void paintEvent(QPaintEvent *) override
    {
        QPainter p(this);
        std::visit([&](const auto &item) { paint(p, item); }, m_item);
    }

private:
    static QFont bodyFont() { return textFont(TextSize::Normal); }

    double textHeight(const QString &text, const QFont &font, double indent = 0) const
    {
        return QFontMetricsF(font)
            .boundingRect(QRectF(0, 0, std::max(60.0, width() - indent), 2000), Qt::TextWordWrap,
                          text)
            .height();
    }

    void fit()
    {
        const double height = std::visit([&](const auto &item) { return heightOf(item); }, m_item);
        if (static_cast<int>(height) != minimumHeight())
            setFixedHeight(static_cast<int>(height));
    }

    double heightOf(const PanelTitle &i) const { return i.detail.isEmpty() ? 26 : 44; }
    double heightOf(const PanelHeading &i) const
    {
        return textHeight(i.text, textFont(TextSize::Body, true)) + 8;
    }
    double heightOf(const PanelRow &i) const { return i.value.second.isEmpty() ? rowHeight : 38; }
    double heightOf(const PanelChange &) const { return rowHeight; }
    double heightOf(const PanelVerdict &i) const
    {
        return textHeight(i.text, textFont(TextSize::Body, true), 24)
            + (i.detail.isEmpty() ? 0 : textHeight(i.detail, bodyFont(), 24)) + 10;
    }
    double heightOf(const PanelText &i) const { return textHeight(i.text, bodyFont()) + 8; }
    double heightOf(const PanelRule &) const { return 17; }
    /// What is typed, ticked or pressed is a widget of its own.
    template <class Edited> double heightOf(const Edited &) const { return 0; }

    void paint(QPainter &p, const PanelTitle &i) const
    {
        const Theme &t = Theme::current();
        const double marks = i.marks.empty() ? 0 : 18.0 * static_cast<double>(i.marks.size());
        drawLine(p, QRectF(0, 0, width() - marks, 22), Qt::AlignVCenter, i.text,
                 textFont(TextSize::Title, true), t.ink);
        for (size_t k = 0; k < i.marks.size(); ++k)
            drawMark(p, QPointF(width() - marks + 18.0 * static_cast<double>(k) + 10, 12), 12,
                     i.marks[k]);
        drawLine(p, QRectF(0, 22, width(), 18), Qt::AlignVCenter, i.detail, bodyFont(), t.muted);
    }
    void paint(QPainter &p, const PanelHeading &i) const
    {
        p.setFont(textFont(TextSize::Body, true));
        p.setPen(toneColour(i.tone));
        p.drawText(QRectF(0, 2, width(), height() - 2.0), Qt::TextWordWrap, i.text);
    }
    void paint(QPainter &p, const PanelRow &i) const
    {
        const Theme &t = Theme::current();
        const double used = drawFigure(p, QPointF(width(), 16), i.value,
                                       textFont(TextSize::Body, true), t.ink, t.muted);
        drawLine(p, QRectF(0, 0, width() - used - 8, 22), Qt::AlignVCenter, i.label, bodyFont(),
                 t.muted);
        if (!i.value.second.isEmpty())
            drawLine(p, QRectF(0, 19, width(), 16), Qt::AlignRight | Qt::AlignVCenter,
                     i.value.second, textFont(TextSize::Small), t.muted);
    }
    void paint(QPainter &p, const PanelChange &i) const
    {
        const Theme &t = Theme::current();
        const double used
            = drawFigure(p, QPointF(width(), 16), i.after, textFont(TextSize::Body, true),
                         i.same() ? t.ink : toneColour(i.tone), t.muted);
        const QString before
            = i.same() ? tr("no change, ") : i.before.number + QStringLiteral("  \u2192 ");
        const double beforeWidth = QFontMetricsF(bodyFont()).horizontalAdvance(before) + 4;
        drawLine(p, QRectF(width() - used - beforeWidth, 0, beforeWidth, 22), Qt::AlignVCenter,
                 before, bodyFont(), t.muted);
        drawLine(p, QRectF(0, 0, width() - used - beforeWidth - 6, 22), Qt::AlignVCenter, i.label,
                 bodyFont(), t.muted);
    }
    void paint(QPainter &p, const PanelVerdict &i) const
    {
        const Theme &t = Theme::current();
        drawMark(p, QPointF(8, 9), 12, i.mark);
        const QFont bold = textFont(TextSize::Body, true);
        const double height = textHeight(i.text, bold, 24);
        p.setFont(bold);
        p.setPen(t.ink);
        p.drawText(QRectF(24, 0, width() - 24, height), Qt::TextWordWrap, i.text);
        p.setFont(bodyFont());
        p.setPen(t.muted);
        p.drawText(QRectF(24, height, width() - 24, 2000), Qt::TextWordWrap, i.detail);
    }
    void paint(QPainter &p, const PanelText &i) const
    {
        p.setFont(bodyFont());
        p.setPen(toneColour(i.tone));
        p.drawText(QRectF(0, 0, width(), 2000), Qt::TextWordWrap, i.text);
    }
    void paint(QPainter &p, const PanelRule &) const
    {
        p.setPen(Theme::current().line);
        p.drawLine(QPointF(0, 8.5), QPointF(width(), 8.5));
    }
    template <class Edited> void paint(QPainter &, const Edited &) const { }

    QString spoken() const
    {
        if (const auto *i = std::get_if<PanelTitle>(&m_item))
            return i->text + u' ' + i->detail;
        if (const auto *i = std::get_if<PanelHeading>(&m_item))
            return i->text;
        if (const auto *i = std::get_if<PanelRow>(&m_item))
            return i->label + QStringLiteral(": ") + i->value.text();
        if (const auto *i = std::get_if<PanelChange>(&m_item))
            return i->label + QStringLiteral(": ")
                + (i->same() ? tr("no change, ") : i->before.text() + tr(" becomes "))
                + i->after.text();
        if (const auto *i = std::get_if<PanelVerdict>(&m_item))
            return qs(markWord(i->mark)) + QStringLiteral(": ") + i->text + u' ' + i->detail;
        if (const auto *i = std::get_if<PanelText>(&m_item))
            return i->text;
        return {};
    }

    PanelItem m_item { PanelRule {} };
};

} // namespace

QWidget *makeItemView(PanelItem item, QWidget *parent)
{
    return new ItemView(std::move(item), parent);
}

void setItem(QWidget *view, PanelItem item)
{
    static_cast<ItemView *>(view)->set(std::move(item));
}

} // namespace mildpath
