// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/buildsheetdocument.h"

#include "paint/marks.h"
#include "paint/text.h"
#include "quantity/overloaded.h"
#include "storage/files.h"

#include <QBuffer>
#include <QPageSize>
#include <QPainter>
#include <QPdfWriter>
#include <QSvgRenderer>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr double margin = 54; ///< px at 96 to the inch: 14 mm
constexpr double padding = 4, markWidth = 16, footHeight = 24;

QFont sheetFont(double pixels, bool bold = false)
{
    QFont out = textFont(TextSize::Normal, bold);
    out.setPixelSize(static_cast<int>(pixels));
    return out;
}

/// Lays the sheet out page by page; without a painter it only counts.
class Pages
{
public:
    Pages(const BuildSheet &sheet, QSizeF page, QPdfWriter *pdf, int of)
        : m_sheet(sheet)
        , m_page(page)
        , m_pdf(pdf)
        , m_of(of)
    {
        if (pdf) {
            m_painter.begin(pdf);
            m_painter.setRenderHint(QPainter::Antialiasing);
        }
    }

    /// @return how many pages
    int run()
    {
        m_y = margin;
        head();
        for (size_t i = 0; i < m_sheet.blocks.size(); ++i)
            std::visit(Overloaded {
                           [&](const SheetHeading &h) { heading(h, i); },
                           [&](const SheetText &t) {
                               paragraph(qs(t.text), sheetFont(11.5),
                                         t.muted ? Theme::current().muted : Theme::current().ink,
                                         4);
                           },
                           [&](const SheetTable &t) { table(t); },
                           [&](const SheetPicture &p) { picture(p); },
                       },
                       m_sheet.blocks[i]);
        foot();
        return m_number;
    }

private:
    double width() const { return m_page.width() - 2 * margin; }
    double bottom() const { return m_page.height() - margin - footHeight; }
    bool fits(double high) const { return m_y + high <= bottom(); }

    void newPage()
    {
        foot();
        ++m_number;
        m_y = margin;
        if (m_pdf)
            m_pdf->newPage();
    }

    void foot()
    {
        if (!m_pdf)
            return;
        const QRectF area(margin, m_page.height() - margin - 8, width(), 16);
        drawLine(m_painter, area, Qt::AlignLeft | Qt::AlignVCenter, qs(m_sheet.title),
                 sheetFont(10), Theme::current().muted);
        drawLine(m_painter, area, Qt::AlignRight | Qt::AlignVCenter,
                 QObject::tr("page %1 of %2").arg(m_number).arg(m_of), sheetFont(10),
                 Theme::current().muted);
    }

    static double heightOf(const QString &text, const QFont &font, double wide)
    {
        return std::ceil(QFontMetricsF(font)
                             .boundingRect(QRectF(0, 0, wide, 1e5), Qt::TextWordWrap, text)
                             .height());
    }

    void words(QRectF area, const QString &text, const QFont &font, const QColor &colour)
    {
        if (!m_pdf)
            return;
        m_painter.setFont(font);
        m_painter.setPen(colour);
        m_painter.drawText(area, Qt::TextWordWrap, text);
    }

    void paragraph(const QString &text, const QFont &font, const QColor &colour, double after)
    {
        const double high = heightOf(text, font, width());
        if (!fits(high))
            newPage();
        words({ margin, m_y, width(), high + 2 }, text, font, colour);
        m_y += high + after;
    }

    void head()
    {
        const Theme &t = Theme::current();
        paragraph(qs(m_sheet.title), sheetFont(22, true), t.ink, 2);
        QStringList under;
        for (const Phrase &u : m_sheet.under)
            under << qs(u);
        paragraph(under.join(QStringLiteral("  ·  ")), sheetFont(12), t.muted, 8);
        if (m_pdf)
            drawMark(m_painter, { margin + 7, m_y + 8 }, 13, m_sheet.mark);
        const QFont bold = sheetFont(13, true);
        const double high = heightOf(qs(m_sheet.state), bold, width() - 22);
        words({ margin + 22, m_y, width() - 22, high + 2 }, qs(m_sheet.state), bold, t.ink);
        m_y += high + 8;
    }

    /// Room that a block wants at least, so that no heading stands alone at a page's end.
    double leastOf(size_t block)
    {
        if (block >= m_sheet.blocks.size())
            return 0;
        return std::visit(Overloaded {
                              [](const SheetHeading &) { return 0.0; },
                              [](const SheetText &) { return 20.0; },
                              [&](const SheetTable &t) { return opening(t); },
                              [&](const SheetPicture &p) { return pictureHeight(p); },
                          },
                          m_sheet.blocks[block]);
    }

    void heading(const SheetHeading &h, size_t block)
    {
        const QFont font = sheetFont(16, true);
        const double high = heightOf(qs(h.text), font, width());
        if (!fits(14 + high + 6 + leastOf(block + 1)))
            newPage();
        else
            m_y += 14;
        words({ margin, m_y, width(), high + 2 }, qs(h.text), font, Theme::current().ink);
        m_y += high + 6;
    }

    static std::vector<SheetCell> headRow(const SheetTable &t)
    {
        std::vector<SheetCell> out;
        for (const Phrase &h : t.head)
            out.push_back({ h });
        return out;
    }

    double cellWidth(const std::vector<double> &widths, size_t column, const SheetCell &c) const
    {
        return widths[column] * width() - padding - 4 - (c.mark ? markWidth : 0);
    }

    double rowHeight(const std::vector<SheetCell> &row, const std::vector<double> &widths,
                     bool isHead = false) const
    {
        double high = 14;
        for (size_t c = 0; c < row.size(); ++c)
            high = std::max(high,
                            heightOf(qs(row[c].text), sheetFont(isHead ? 10.5 : 11),
                                     cellWidth(widths, c, row[c])));
        return high + 2 * padding;
    }

    void drawRow(const std::vector<SheetCell> &row, const std::vector<double> &widths, bool isHead)
    {
        const Theme &t = Theme::current();
        const double high = rowHeight(row, widths, isHead);
        double x = margin;
        for (size_t c = 0; c < row.size(); ++c) {
            const double shift = row[c].mark ? markWidth : 0;
            if (m_pdf && row[c].mark)
                drawMark(m_painter, { x + 6, m_y + padding + 8 }, 11, *row[c].mark);
            words({ x + shift, m_y + padding, cellWidth(widths, c, row[c]), high }, qs(row[c].text),
                  sheetFont(isHead ? 10.5 : 11), isHead ? t.muted : t.ink);
            x += widths[c] * width();
        }
        if (m_pdf) {
            m_painter.setPen(QPen(isHead ? t.muted : t.line, isHead ? 1.0 : 0.6));
            m_painter.drawLine(QPointF(margin, m_y + high), QPointF(margin + width(), m_y + high));
        }
        m_y += high;
    }

    /// The head of a table with the rows that must stay with it.
    double opening(const SheetTable &t) const
    {
        double high = rowHeight(headRow(t), t.widths, true);
        for (size_t i = 0; i < t.rows.size() && (i == 0 || t.rows.size() == 2); ++i)
            high += rowHeight(t.rows[i], t.widths);
        return high;
    }

    void table(const SheetTable &t)
    {
        const std::vector<SheetCell> titles = headRow(t);
        if (!fits(opening(t)))
            newPage();
        drawRow(titles, t.widths, true);
        for (size_t i = 0; i < t.rows.size(); ++i) {
            // Not one last row alone on the next page: it takes its neighbour along.
            double need = rowHeight(t.rows[i], t.widths);
            if (i + 2 == t.rows.size())
                need += rowHeight(t.rows[i + 1], t.widths);
            if (!fits(need)) {
                newPage();
                drawRow(titles, t.widths, true);
            }
            drawRow(t.rows[i], t.widths, false);
        }
        m_y += 10;
    }

    double pictureHeight(const SheetPicture &p) const
    {
        return 18 + p.height * std::min(1.0, width() / p.width) + 8;
    }

    void picture(const SheetPicture &p)
    {
        const double high = pictureHeight(p);
        if (!fits(high))
            newPage();
        const Theme &t = Theme::current();
        const QFont bold = sheetFont(11.5, true);
        const double wide = QFontMetricsF(bold).horizontalAdvance(qs(p.title));
        if (m_pdf) {
            drawLine(m_painter, { margin, m_y, wide + 4, 16 }, Qt::AlignLeft | Qt::AlignVCenter,
                     qs(p.title), bold, t.ink);
            drawLine(m_painter, { margin + wide + 12, m_y, width() - wide - 12, 16 },
                     Qt::AlignLeft | Qt::AlignVCenter, qs(p.note), sheetFont(10.5), t.muted);
            // The type that is shipped answers to a name of its own.
            QString text = qs(p.svg);
            text.replace(QLatin1String("B612, sans-serif"), sheetFont(11).family());
            QSvgRenderer svg(text.toUtf8());
            const double scale = std::min(1.0, width() / p.width);
            svg.render(&m_painter, QRectF(margin, m_y + 18, p.width * scale, p.height * scale));
        }
        m_y += high;
    }

    const BuildSheet &m_sheet;
    QSizeF m_page;
    QPdfWriter *m_pdf;
    QPainter m_painter;
    int m_number = 1, m_of;
    double m_y = 0;
};

} // namespace

Result<void> writeBuildSheetPdf(const BuildSheet &sheet, Paper paper, const QString &path)
{
    const PaperColours colours;
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    {
        QPdfWriter pdf(&buffer);
        const QPageSize size(paper == Paper::A4 ? QPageSize::A4 : QPageSize::Letter);
        pdf.setPageSize(size);
        pdf.setPageMargins(QMarginsF(0, 0, 0, 0)); // the sheet brings its own
        pdf.setResolution(96); // type sizes are pixels of a screen; lines stay vectors
        pdf.setTitle(qs(sheet.title));
        pdf.setCreator(QStringLiteral("Mild Path"));
        const QSizeF page = size.sizePixels(96);
        const int of = Pages(sheet, page, nullptr, 0).run();
        Pages(sheet, page, &pdf, of).run();
    }
    return writeOutput(path.toStdString(), bytes.toStdString(), Over::AnyFile);
}

Result<void> writeSheetTo(const BuildSheet &sheet, Paper paper, const QString &path)
{
    if (path.endsWith(QStringLiteral(".html"), Qt::CaseInsensitive))
        return writeOutput(path.toStdString(), sheetToHtml(sheet, paper), Over::AnyFile);
    return writeBuildSheetPdf(sheet, paper, path);
}

Result<void> writeBuildSheet(const Build &build, const Assessment &assessment,
                             const std::string &date, Paper paper, const QString &path)
{
    return writeSheetTo(buildSheet(build, assessment, date, Figure::style()), paper, path);
}

} // namespace mildpath
