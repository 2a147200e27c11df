// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/buildsheetdocument.h"

#include "paint/marks.h"
#include "paint/text.h"
#include "quantity/overloaded.h"
#include "storage/files.h"

#include <QBuffer>
#include <QLocale>
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
/// A picture that does not fit is drawn smaller rather than leaving a page half empty.
constexpr double smallestPicture = 0.62;
constexpr double signHeight = 74;
constexpr double ruling = 26; ///< between the lines for notes

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
    /// Where each part of the sheet begins.
    using Contents = std::vector<std::pair<QString, int>>;

    /// @param contents  as counted before
    Pages(const BuildSheet &sheet, QSizeF page, QPdfWriter *pdf, int of, Contents contents)
        : m_sheet(sheet)
        , m_page(page)
        , m_pdf(pdf)
        , m_of(of)
        , m_contents(std::move(contents))
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
                           [&](const SheetFacts &f) { facts(f); },
                           [&](const SheetSignatures &g) { signatures(g); },
                           [&](const SheetNotes &) { notes(); },
                       },
                       m_sheet.blocks[i]);
        foot();
        return m_number;
    }
    const Contents &found() const { return m_found; }

private:
    double width() const { return m_page.width() - 2 * margin; }
    double bottom() const
    {
        return m_page.height() - margin - footHeight - (m_number == 1 ? 14 : 0);
    }
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
        drawLine(m_painter, area.adjusted(0, 0, -90, 0), Qt::AlignLeft | Qt::AlignVCenter,
                 m_sheet.foot.empty() ? qs(m_sheet.title) : qs(m_sheet.foot), sheetFont(10),
                 Theme::current().muted);
        if (m_number == 1 && !m_contents.empty()) {
            QStringList parts;
            for (const auto &[name, page] : m_contents)
                parts << QStringLiteral("%1 %2").arg(page).arg(name);
            drawLine(m_painter, area.translated(0, -14), Qt::AlignLeft | Qt::AlignVCenter,
                     parts.join(QStringLiteral(" · ")), sheetFont(9), Theme::current().muted);
        }
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
        return std::visit(
            Overloaded {
                [&](const SheetHeading &) { return 34 + leastOf(block + 1); },
                [](const SheetText &) { return 20.0; },
                [&](const SheetTable &t) { return opening(t); },
                [&](const SheetPicture &p) { return smallestPicture * pictureHeight(p); },
                [](const SheetFacts &) { return 80.0; },
                [](const SheetSignatures &) { return signHeight; },
                [](const SheetNotes &) { return 0.0; },
            },
            m_sheet.blocks[block]);
    }

    void heading(const SheetHeading &h, size_t block)
    {
        const QFont font = sheetFont(h.section ? 18 : 15, true);
        const double high = heightOf(qs(h.text), font, width());
        if (!fits(14 + high + 6 + leastOf(block + 1)))
            newPage();
        else
            m_y += 14;
        if (h.section)
            m_found.emplace_back(qs(h.text), m_number);
        words({ margin, m_y, width(), high + 2 }, qs(h.text), font, Theme::current().ink);
        m_y += high + 6;
    }

    /// Labels and values, three beside each other, between two lines.
    void facts(const SheetFacts &f)
    {
        constexpr int beside = 3;
        constexpr double labelWidth = 84;
        const Theme &t = Theme::current();
        const double wide = width() / beside;
        rule(t.muted, 1);
        m_y += 5;
        for (size_t i = 0; i < f.facts.size(); i += beside) {
            double high = 16;
            const size_t end = std::min(f.facts.size(), i + beside);
            for (size_t k = i; k < end; ++k)
                high = std::max(
                    high,
                    heightOf(qs(f.facts[k].second), sheetFont(11, true), wide - labelWidth - 12));
            for (size_t k = i; k < end; ++k) {
                const double x = margin + wide * static_cast<double>(k - i);
                words({ x, m_y, labelWidth, high }, qs(f.facts[k].first), sheetFont(11), t.muted);
                words({ x + labelWidth, m_y, wide - labelWidth - 8, high + 2 },
                      qs(f.facts[k].second), sheetFont(11, true), t.ink);
            }
            m_y += high + 3;
        }
        m_y += 3;
        rule(t.line, 0.6);
        m_y += 6;
    }

    void rule(const QColor &colour, double pen)
    {
        if (!m_pdf)
            return;
        m_painter.setPen(QPen(colour, pen));
        m_painter.drawLine(QPointF(margin, m_y), QPointF(margin + width(), m_y));
    }

    void signatures(const SheetSignatures &g)
    {
        if (!fits(signHeight))
            newPage();
        const Theme &t = Theme::current();
        const double gap = 22, n = static_cast<double>(std::max<size_t>(1, g.lines.size()));
        const double wide = (width() - gap * (n - 1)) / n;
        for (size_t i = 0; i < g.lines.size(); ++i) {
            const double x = margin + (wide + gap) * static_cast<double>(i);
            words({ x, m_y + 8, wide, 18 }, qs(g.lines[i].what), sheetFont(11), t.muted);
            const double line = m_y + signHeight - 26;
            if (m_pdf) {
                m_painter.setPen(QPen(t.ink, 1));
                m_painter.drawLine(QPointF(x, line), QPointF(x + wide, line));
                const QString name = qs(g.lines[i].name), date = qs(g.lines[i].date);
                drawLine(m_painter, { x, line + 3, wide - 60, 16 }, Qt::AlignLeft,
                         name.isEmpty() ? QObject::tr("name") : name,
                         sheetFont(11, !name.isEmpty()), name.isEmpty() ? t.muted : t.ink);
                drawLine(m_painter, { x + wide - 90, line + 3, 90, 16 }, Qt::AlignRight,
                         date.isEmpty() ? QObject::tr("date") : date, sheetFont(11), t.muted);
            }
        }
        m_y += signHeight;
    }

    /// What is left of the last page is for writing by hand.
    void notes()
    {
        if (!fits(40 + 2 * ruling))
            return;
        m_y += 14;
        words({ margin, m_y, width(), 22 }, QObject::tr("Notes"), sheetFont(15, true),
              Theme::current().ink);
        m_y += 24;
        while (fits(ruling)) {
            m_y += ruling;
            rule(Theme::current().line, 0.6);
        }
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
        const double whole = pictureHeight(p);
        const double room = bottom() - m_y;
        // Rather a little smaller than a page with a hole in it.
        const double shrink = room >= whole   ? 1
            : room >= smallestPicture * whole ? room / whole
                                              : 0;
        if (shrink == 0)
            newPage();
        const double high = shrink > 0 ? shrink * whole : whole;
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
            const double scale = std::min(1.0, width() / p.width) * (shrink > 0 ? shrink : 1);
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
    Contents m_contents, m_found;
};

} // namespace

Paper usualPaper()
{
    switch (QLocale().territory()) {
    case QLocale::UnitedStates:
    case QLocale::Canada:
    case QLocale::Mexico:
    case QLocale::Chile:
    case QLocale::Colombia:
    case QLocale::Philippines:
        return Paper::Letter;
    default:
        return Paper::A4;
    }
}

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
        Pages first(sheet, page, nullptr, 0, {});
        const int of = first.run();
        Pages(sheet, page, &pdf, of, first.found()).run();
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
