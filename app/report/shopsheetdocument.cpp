// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/shopsheetdocument.h"

#include "checks/assessment.h"
#include "document/logbook.h"
#include "paint/figure.h"
#include "paint/passagepainter.h"
#include "paint/theme.h"

#include "storage/files.h"

#include <QAbstractTextDocumentLayout>
#include <QBuffer>
#include <QPageSize>
#include <QPdfWriter>
#include <QTextCursor>
#include <QTextObjectInterface>
#include <QTextTable>

#include <array>

namespace mildpath {
namespace {

constexpr int drawingObject = QTextFormat::UserObject + 1;
constexpr int drawingPart = 1; ///< property: which part
constexpr double drawingWidth = 640;

/// Block and heads have galleries one above the other; other parts a row of drillings.
QSizeF drawingSize(const QTextFormat &format)
{
    const QString part = format.property(drawingPart).toString();
    return { drawingWidth,
             part == QLatin1String("block") || part.startsWith(QLatin1String("head")) ? 215.0
                                                                                      : 120.0 };
}

/// Draws the passages of one part inside a text document.
class PassageDrawing : public QObject, public QTextObjectInterface
{
    Q_OBJECT
    Q_INTERFACES(QTextObjectInterface)
public:
    PassageDrawing(const Build &build, const Assessment &assessment, QObject *parent)
        : QObject(parent)
        , m_build(build)
        , m_network(m_build.passages, m_build.plugs)
        , m_picture(pictureOf(m_build, assessment.cleaning, m_network, pockets(m_network)))
    {
    }
    /// As wide as the page lets it be.
    QSizeF intrinsicSize(QTextDocument *document, int, const QTextFormat &format) override
    {
        const QSizeF full = drawingSize(format);
        const double page = document->pageSize().width() > 0 ? document->pageSize().width()
                                                             : document->textWidth();
        const double room = page - 2 * document->documentMargin() - 4;
        return room > 0 && room < full.width() ? full * (room / full.width()) : full;
    }
    void drawObject(QPainter *painter, const QRectF &rect, QTextDocument *, int,
                    const QTextFormat &format) override
    {
        const PaperColours paper;
        const QSizeF full = drawingSize(format);
        const PassageLayout layout
            = layOutPart(m_network, format.property(drawingPart).toString().toStdString(),
                         QRectF(QPointF(), full).adjusted(8, 8, -8, -8), stopNamesOf(m_build),
                         stopKindsOf(m_build));
        painter->save();
        painter->translate(rect.topLeft());
        painter->scale(rect.width() / full.width(), rect.height() / full.height());
        paintPassages(*painter, m_picture, layout);
        painter->restore();
    }

private:
    Build m_build; ///< a copy: the document may outlive the one it was made from
    PassageNetwork m_network;
    PassagePicture m_picture;
};

class Writer
{
public:
    explicit Writer(QTextDocument &document)
        : m_cursor(&document)
    {
        m_plain.setFont(textFont(TextSize::Normal));
        m_bold.setFont(textFont(TextSize::Normal, true));
        m_title.setFont(textFont(TextSize::Readout, true));
        m_head.setFont(textFont(TextSize::Title, true));
        for (QTextCharFormat *f : { &m_plain, &m_bold, &m_title, &m_head })
            f->setForeground(Qt::black);
    }

    void title(const QString &text) { line(text, m_title, 0, 2); }
    void heading(const QString &text) { line(text, m_head, 12, 3); }
    void text(const QString &text) { line(text, m_plain, 0, 3); }
    void item(const QString &text) { line(QStringLiteral("\u2610  ") + text, m_plain, 0, 3); }

    void table(const QStringList &heads, const std::vector<QStringList> &rows,
               const std::vector<double> &widths)
    {
        QTextTableFormat format;
        format.setBorder(0.5);
        format.setBorderStyle(QTextFrameFormat::BorderStyle_Solid);
        format.setBorderBrush(QColor(0x99, 0x99, 0x99));
        format.setBorderCollapse(true);
        format.setCellPadding(4);
        format.setHeaderRowCount(1); // repeated where a page ends within the table
        format.setWidth(QTextLength(QTextLength::PercentageLength, 100));
        QVector<QTextLength> columns;
        for (const double w : widths)
            columns << QTextLength(QTextLength::PercentageLength, w);
        format.setColumnWidthConstraints(columns);
        m_cursor.movePosition(QTextCursor::End);
        QTextTable *t = m_cursor.insertTable(static_cast<int>(rows.size()) + 1,
                                             static_cast<int>(heads.size()), format);
        for (int c = 0; c < heads.size(); ++c)
            t->cellAt(0, c).firstCursorPosition().insertText(heads[c], m_bold);
        for (size_t r = 0; r < rows.size(); ++r)
            for (int c = 0; c < rows[r].size(); ++c)
                t->cellAt(static_cast<int>(r) + 1, c)
                    .firstCursorPosition()
                    .insertText(rows[r][c], c == 0 ? m_bold : m_plain);
        m_cursor.movePosition(QTextCursor::End);
    }

    void drawing(const std::string &part)
    {
        QTextCharFormat format;
        format.setObjectType(drawingObject);
        format.setProperty(drawingPart, qs(part));
        block(2, 2);
        m_cursor.insertText(QString(QChar::ObjectReplacementCharacter), format);
    }

private:
    void block(double above, double below)
    {
        QTextBlockFormat b;
        b.setTopMargin(above);
        b.setBottomMargin(below);
        m_cursor.movePosition(QTextCursor::End);
        if (m_cursor.position() == 0)
            m_cursor.setBlockFormat(b);
        else
            m_cursor.insertBlock(b);
    }
    void line(const QString &text, const QTextCharFormat &format, double above, double below)
    {
        block(above, below);
        m_cursor.insertText(text, format);
    }

    QTextCursor m_cursor;
    QTextCharFormat m_plain, m_bold, m_title, m_head;
};

void fill(Writer &w, const ShopSheet &s)
{
    w.title(QObject::tr("Machine-shop sheet"));
    w.text(qs(s.build) + QStringLiteral("   \u00b7   ") + qs(s.engine)
           + QStringLiteral("   \u00b7   ") + qs(s.date));
    w.heading(QObject::tr("What is to be done"));
    if (s.work.empty())
        w.text(QObject::tr("Nothing is asked for yet."));
    for (const ShopSheet::Work &work : s.work) {
        w.item(qs(work.what)
               + (work.note.empty() ? QString() : QStringLiteral(": ") + qs(work.note)));
        QStringList dirties;
        for (const std::string &p : work.dirties)
            dirties << qs(p);
        if (!dirties.isEmpty())
            w.text(QObject::tr("Its swarf gets into %1.").arg(dirties.join(QStringLiteral(", "))));
    }
    for (const std::string &part : s.parts) {
        w.heading(QObject::tr("Passages of the %1").arg(qs(partName(part))));
        w.drawing(part);
    }
    if (!s.plugs.empty()) {
        w.heading(QObject::tr("Plugs, in and out"));
        std::vector<QStringList> rows;
        for (const ShopSheet::PlugRow &p : s.plugs)
            rows.push_back({ qs(p.name), qs(p.where), qs(p.kind), qs(p.size), qs(p.say) });
        w.table({ QObject::tr("plug"), QObject::tr("passage"), QObject::tr("kind"),
                  QObject::tr("size"), QObject::tr("goes to you") },
                rows, { 9, 25, 28, 10, 28 });
    }
    w.heading(QObject::tr("To be shown when it comes back"));
    for (const std::string &line : s.prove) {
        QString text = qs(line);
        if (!text.isEmpty())
            text[0] = text[0].toUpper();
        w.item(text);
    }
    if (s.prove.empty())
        w.text(QObject::tr("Nothing is asked for yet."));
    w.heading(QObject::tr("Mind"));
    for (const std::string &line : s.cautions)
        w.text(qs(line));
    w.text(QObject::tr("Done by ______________________    date ______________    "
                       "plugs seen by ______________________"));
}

} // namespace

std::unique_ptr<QTextDocument> shopSheetDocument(const Build &build, const Assessment &assessment,
                                                 const std::string &date)
{
    auto out = std::make_unique<QTextDocument>();
    out->setDefaultFont(textFont(TextSize::Normal));
    out->documentLayout()->registerHandler(drawingObject,
                                           new PassageDrawing(build, assessment, out.get()));
    Writer writer(*out);
    fill(writer, shopSheet(build, date));
    return out;
}

Result<void> writeShopSheet(const Build &build, const Assessment &assessment,
                            const std::string &date, const QString &path)
{
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    {
        QPdfWriter pdf(&buffer);
        pdf.setPageSize(QPageSize(QPageSize::A4));
        pdf.setPageMargins(QMarginsF(0, 0, 0, 0)); // the document brings its own
        pdf.setResolution(96); // type sizes are pixels of a screen; lines stay vectors
        pdf.setTitle(QObject::tr("Machine-shop sheet"));
        pdf.setCreator(QStringLiteral("Mild Path"));
        const auto document = shopSheetDocument(build, assessment, date);
        document->print(&pdf);
    }
    return writeOutput(path.toStdString(), bytes.toStdString(), Over::AnyFile);
}

} // namespace mildpath

#include "shopsheetdocument.moc"
