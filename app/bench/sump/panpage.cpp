// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/sump/panpage.h"

#include "bench/sump/sectionpainter.h"
#include "entry/arrowcombo.h"
#include "entry/pairtable.h"
#include "paint/card.h"
#include "shell/stopfields.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace mildpath {
namespace {

using Rows = std::vector<std::pair<double, double>>;

std::vector<PanPoint> points(const Rows &rows)
{
    std::vector<PanPoint> out;
    for (const auto &[x, z] : rows)
        out.push_back({ x, z });
    return out;
}

Rows rowsOf(const std::vector<PanPoint> &points)
{
    Rows out;
    for (const PanPoint &p : points)
        out.push_back({ p.x_mm, p.z_mm });
    return out;
}

/// A section with its corners numbered as in the table under it.
class SectionPreview : public QWidget
{
public:
    SectionPreview(OpenBuild &open, PanWay way, QWidget *parent)
        : QWidget(parent)
        , m_open(open)
        , m_way(way)
    {
        setMinimumHeight(150);
    }

protected:
    void paintEvent(QPaintEvent *) override
    {
        const Sump &s = m_open.build().sump;
        QPainter p(this);
        SmallSection small { sectionOf(m_open.build(), m_way)
                                 .value_or(HungSection { profileOf(s.section(m_way)), {}, {} }),
                             {},
                             true };
        if (small.section.profile.empty())
            return;
        if (const AirLevel *rest = m_open.air().level("rest_cold"))
            small.surface = OilSurface { 0, rest->level_m };
        paintSmallSection(p, QRectF(rect()).adjusted(26, 8, -26, -8), small);
    }

private:
    OpenBuild &m_open;
    PanWay m_way;
};

} // namespace

PanPage::PanPage(OpenBuild &open, QWidget *parent)
    : Page(open, parent)
    , m_along(new PairTable(QStringLiteral("pan.along"), tr("to the rear, mm"), tr("up, mm"), this))
    , m_across(
          new PairTable(QStringLiteral("pan.across"), tr("to the right, mm"), tr("up, mm"), this))
    , m_fill(new PairTable(QStringLiteral("pan.fill"), tr("height, mm"), tr("litres in it"), this))
    , m_shape(new ArrowCombo(this))
    , m_from(new QLabel(this))
{
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(8);
    auto *head = new QHBoxLayout;
    m_shape->setObjectName(QStringLiteral("pan.shape"));
    m_shape->setAccessibleName(tr("Usual shapes"));
    for (const PanShape &s : panShapes())
        m_shape->addItem(qs(s.name), qs(s.id));
    head->addWidget(m_shape);
    auto *make = new QPushButton(tr("Make this shape"), this);
    make->setObjectName(QStringLiteral("pan.make"));
    make->setToolTip(
        tr("Both sections anew, in proportion to the engine: a beginning to be corrected"));
    connect(make, &QPushButton::clicked, this, &PanPage::makeShape);
    head->addWidget(make);
    m_from->setObjectName(QStringLiteral("pan.from"));
    head->addWidget(m_from, 1);
    column->addLayout(head);
    auto *tables = new QHBoxLayout;
    tables->setSpacing(10);
    m_preview[0] = new SectionPreview(open, PanWay::Along, this);
    m_preview[1] = new SectionPreview(open, PanWay::Across, this);
    tables->addWidget(makeTable(tr("Along"), tr("corners round the section, crankcase and all"),
                                m_preview[0], m_along),
                      5);
    tables->addWidget(makeTable(tr("Across"), tr("a slice at the pickup"), m_preview[1], m_across),
                      4);
    tables->addWidget(
        makeTable(tr("Bench fill"), tr("pour, read the height, write it down"), nullptr, m_fill),
        3);
    column->addLayout(tables, 1);
    connect(m_along, &PairTable::edited, this, [this](const Rows &r) { store(PanWay::Along, r); });
    connect(m_across, &PairTable::edited, this,
            [this](const Rows &r) { store(PanWay::Across, r); });
    connect(m_fill, &PairTable::edited, this, &PanPage::storeFill);
}

QWidget *PanPage::makeTable(const QString &title, const QString &about, QWidget *picture,
                            PairTable *table)
{
    auto *card = new CardWidget(this);
    auto *inside = new QVBoxLayout(card);
    inside->setContentsMargins(12, 8, 12, 10);
    inside->setSpacing(4);
    auto *name = new QLabel(title, card);
    name->setFont(textFont(TextSize::Body, true));
    inside->addWidget(name);
    auto *word = new QLabel(about, card);
    setTone(word, Theme::current().muted);
    word->setWordWrap(true);
    word->setFont(textFont(TextSize::Small));
    inside->addWidget(word);
    if (picture)
        inside->addWidget(picture, 1);
    inside->addWidget(table, 1);
    return card;
}

void PanPage::refresh()
{
    const Sump &s = m_open.build().sump;
    m_along->setRows(rowsOf(s.along));
    m_across->setRows(rowsOf(s.across));
    Rows fill;
    for (const BenchFill &f : s.benchFill)
        fill.push_back({ f.height_mm, f.litres });
    // Steps being typed are no section yet: they stay until they are one.
    if (!fill.empty() || m_fill->rows().size() < 2 || !s.shape.empty())
        m_fill->setRows(fill);
    QString from = tr("typed");
    for (const PanShape &shape : panShapes())
        if (shape.id == s.shape)
            from = tr("made as \"%1\", to be corrected").arg(qs(shape.name));
    if (!s.benchFill.empty())
        from = tr("made from %1 heights and their litres").arg(s.benchFill.size());
    else if (s.along.empty() && s.across.empty())
        from = tr("no section yet: begin with a shape");
    for (QWidget *p : m_preview)
        p->update();
    m_from->setText(from);
    setTone(m_from, Theme::current().muted);
}

void PanPage::store(PanWay way, const Rows &rows)
{
    const Sump &s = m_open.build().sump;
    SetPan edit { s.along, s.across, {}, "", {} };
    (way == PanWay::Along ? edit.along : edit.across) = points(rows);
    PairTable *table = way == PanWay::Along ? m_along : m_across;
    const auto ok = m_open.edit(std::move(edit));
    refresh();
    table->say(ok ? QString() : qs(ok.error().message));
}

void PanPage::storeFill(const Rows &rows)
{
    std::vector<BenchFill> steps;
    for (const auto &[height, litres] : rows)
        steps.push_back({ height, litres });
    const auto made = panFromBenchFill(m_open.build().sump, std::move(steps));
    if (!made) {
        m_fill->setRows(rows);
        m_fill->say(qs(made.error().message));
        return;
    }
    const auto ok = m_open.edit(*made);
    refresh();
    m_fill->say(ok ? QString() : qs(ok.error().message));
}

void PanPage::makeShape()
{
    const Build &b = m_open.build();
    const double fill = b.sump.own("fill_l").value_or(4.5);
    const Sump made = shapedSump(m_shape->currentData().toString().toStdString(),
                                 usualPanSizes(b.engine, fill));
    const auto ok = m_open.edit(SetPan { made.along, made.across, {}, made.shape, made.values });
    m_along->say(ok ? QString() : qs(ok.error().message));
    refresh();
}

PanelContent PanPage::panel()
{
    PanelContent out;
    out.push_back(PanelTitle { tr("Pan and pickup"), {} });
    const AirReport &air = m_open.air();
    if (air.problem)
        out.push_back(PanelVerdict { markOf(air), tr("Not judged"), qs(air.problem->message) });
    out.push_back(
        PanelText { tr("Heights count from the lowest inside point. The section along the "
                       "engine and the inside width make the volume; a slice across keeps "
                       "in a turn what it holds on the level."),
                    Tone::Muted });
    for (const char *group : { "pan", "crank" }) {
        for (const SumpGroup &g : sumpGroups())
            if (g.id == group)
                out.push_back(PanelHeading { tr(g.title.data()) });
        for (const NumberKey &k : sumpKeys())
            if (k.group == group)
                out.push_back(sumpField(m_open, k));
    }
    if (const Stop *pickup = m_open.build().engine.ofKind(StopKind::Pickup)) {
        out.push_back(PanelHeading { tr("Pickup") });
        for (const char *key : { "pickup_bore_mm", "pickup_mouth_mm", "pickup_gap_mm" })
            out.push_back(stopValueField(m_open, *pickup, key));
    }
    return out;
}

} // namespace mildpath
