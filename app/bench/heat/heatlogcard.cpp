// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/heat/heatlogcard.h"

#include "devices/serialgauge.h"
#include "entry/arrowcombo.h"
#include "entry/quantityfield.h"
#include "paint/marks.h"

#include <QAbstractItemView>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QScrollBar>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

/// One mark, as large as a row is high.
class MarkView : public QWidget
{
public:
    using QWidget::QWidget;
    void set(std::optional<Mark> mark, const QString &why)
    {
        m_mark = mark;
        setToolTip(why);
        setAccessibleName(mark ? qs(markWord(*mark)) + QStringLiteral(": ") + why : QString());
        update();
    }

protected:
    void paintEvent(QPaintEvent *) override
    {
        if (!m_mark)
            return;
        QPainter p(this);
        drawMark(p, QRectF(rect()).center(), 13, *m_mark);
    }

private:
    std::optional<Mark> m_mark;
};

constexpr size_t leastRows = 4;

} // namespace

HeatLogCard::HeatLogCard(OpenBuild &open, SerialGauge *gauge, QWidget *parent)
    : CardWidget(parent)
    , m_open(open)
    , m_grid(nullptr)
    , m_title(new QLabel(this))
    , m_hint(new QLabel(tr("warm the block evenly, keep the gauge zeroed on the cold journal, let "
                           "the heat even out"),
                        this))
    , m_say(new QLabel(this))
    , m_fit(new QLabel(this))
    , m_use(new QPushButton(this))
{
    setObjectName(QStringLiteral("heatLog"));
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(14, 8, 14, 8);
    column->setSpacing(4);
    auto *head = new QHBoxLayout;
    m_title->setFont(textFont(TextSize::Body, true));
    head->addWidget(m_title);
    head->addSpacing(10);
    m_hint->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    head->addWidget(m_hint, 1);
    column->addLayout(head);
    auto *scroll = new QScrollArea(this);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setWidgetResizable(true);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    auto *page = new QWidget;
    m_grid = new QGridLayout(page);
    m_grid->setContentsMargins(0, 0, 4, 0);
    m_grid->setHorizontalSpacing(6);
    m_grid->setVerticalSpacing(4);
    scroll->setWidget(page);
    page->setAutoFillBackground(false); // which setWidget() turned on
    scroll->viewport()->setAutoFillBackground(false);
    column->addWidget(scroll, 1);
    makeHead(m_grid);
    m_say->setObjectName(QStringLiteral("heatSay"));
    m_say->setWordWrap(true);
    m_say->setMinimumHeight(32);
    m_say->setAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    column->addWidget(m_say);
    auto *foot = new QHBoxLayout;
    m_fit->setObjectName(QStringLiteral("heatFit"));
    m_fit->setWordWrap(true);
    foot->addWidget(m_fit, 1);
    m_use->setObjectName(QStringLiteral("useFit"));
    foot->addWidget(m_use);
    column->addLayout(foot);
    connect(m_use, &QPushButton::clicked, this, [this] {
        const bool own = m_open.build().expansions.contains(std::string(mainHousing));
        std::optional<OwnExpansion> to;
        if (!own) {
            to = expansionFromLog(m_open.build(), m_log);
            to->by = m_open.worker();
            to->at = OpenBuild::now();
        }
        m_open.edit(SetExpansion { std::string(mainHousing), to });
    });
    if (gauge)
        connect(gauge, &SerialGauge::settled, this, [this](double mean_m) {
            for (size_t r = 0; r < m_rows.size(); ++r)
                if (m_rows[r].reading->hasFocus())
                    Q_EMIT m_rows[r].reading->entered(mean_m, true);
        });
}

void HeatLogCard::makeHead(QGridLayout *grid)
{
    const std::pair<QString, QString> heads[] = {
        { tr("front"), tr("Metal at the front of the block") },
        { tr("middle"), tr("Metal in the middle") },
        { tr("rear"), tr("Metal at the rear") },
        { tr("metal"), tr("Mean of the spots, corrected for what the thermometer was aimed at") },
        { tr("spread"),
          tr("Over the block; above %1 the heat has not evened out")
              .arg(inWords(asTemperatureDifference(evenSpread_k))) },
        { tr("aimed at"), tr("What the thermometer was aimed at: bright metal reads far too low") },
        { tr("gauge reads"), tr("Bore in the warm block, gauge zeroed on the cold journal") },
        { tr("journal"), tr("Temperature of the journal when the gauge was zeroed") },
        { tr("would run"), tr("Clearance with the journal as warm as the block") },
    };
    int column = 0;
    for (const auto &[text, tip] : heads) {
        auto *label = new QLabel(text, grid->parentWidget());
        label->setAlignment(Qt::AlignCenter);
        label->setFont(textFont(TextSize::Small));
        label->setToolTip(tip);
        grid->addWidget(label, 0, column++);
    }
    for (const int c : { 0, 1, 2, 6, 7 })
        grid->setColumnStretch(c, 2);
    for (const int c : { 3, 4, 8 })
        grid->setColumnStretch(c, 1);
    grid->setColumnStretch(5, 3);
    grid->setRowStretch(100, 1);
}

void HeatLogCard::addRow()
{
    const size_t row = m_rows.size();
    const int at = static_cast<int>(row) + 1;
    QWidget *page = m_grid->parentWidget();
    Row r;
    const auto field = [&](Dimension dimension, int column, const QString &name,
                           const QString &id) {
        auto *f = new QuantityField(dimension, dimension == Dimension::Length ? "µm" : "°C", page);
        f->setObjectName(QStringLiteral("heat.%1.%2").arg(row).arg(id));
        f->setAccessibleName(tr("%1, point %2").arg(name).arg(row + 1));
        f->setMinimumWidth(40);
        m_grid->addWidget(f, at, column);
        watch(f, row);
        return f;
    };
    const QString names[spots]
        = { tr("metal at the front"), tr("metal in the middle"), tr("metal at the rear") };
    for (int s = 0; s < spots; ++s) {
        auto *f = field(Dimension::Temperature, s, names[s], QStringLiteral("spot%1").arg(s));
        r.spots.push_back(f);
    }
    const auto figure = [&](int column) {
        auto *label = new QLabel(page);
        label->setAlignment(Qt::AlignCenter);
        label->setFont(textFont(TextSize::Normal, true));
        label->setMinimumWidth(34);
        m_grid->addWidget(label, at, column);
        return label;
    };
    r.metal = figure(3);
    r.spread = figure(4);
    r.surface = new ArrowCombo(page);
    r.surface->setObjectName(QStringLiteral("heat.%1.surface").arg(row));
    r.surface->setAccessibleName(tr("aimed at, point %1").arg(row + 1));
    r.surface->setMinimumWidth(88);
    r.surface->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    for (const SpotSurface &s : surfaces())
        r.surface->addItem(qs(s.name));
    r.surface->view()->setMinimumWidth(220);
    connect(r.surface, &QComboBox::activated, this, [this, row](int index) {
        store(row, [&](HeatPoint &p) { p.surface = surfaces()[static_cast<size_t>(index)].id; });
    });
    m_grid->addWidget(r.surface, at, 5);
    r.reading = field(Dimension::Length, 6, tr("gauge reads"), QStringLiteral("reading"));
    r.zero = field(Dimension::Temperature, 7, tr("journal when zeroed"), QStringLiteral("zero"));
    r.running = figure(8);
    auto *mark = new MarkView(page);
    mark->setFixedSize(18, 24);
    mark->setObjectName(QStringLiteral("heat.%1.mark").arg(row));
    r.mark = mark;
    m_grid->addWidget(mark, at, 9);
    connectRow(r, row);
    m_rows.push_back(std::move(r));
}

/// What the cells of a row take and where they go on to.
void HeatLogCard::connectRow(const Row &r, size_t row)
{
    for (QuantityField *f : r.spots) {
        connect(f, &QuantityField::entered, this, [this, f, row](double, bool on) {
            storeSpots(row);
            if (on)
                moveOn(f, row, 1);
        });
        connect(f, &QuantityField::cleared, this, [this, row] { storeSpots(row); });
    }
    r.reading->setCheck([](double m) -> Result<void> {
        if (std::abs(m) * 1e6 <= mostClearanceReading_um)
            return {};
        return fail("",
                    { "heat.too_wide",
                      "a bore gauge here reads less than {0}",
                      { asLength(mostClearanceReading_um / 1e3, 0) } });
    });
    for (QuantityField *f : { r.spots[0], r.spots[1], r.spots[2], r.zero })
        f->setCheck([](double c) -> Result<void> {
            if (c >= -60 && c <= 200)
                return {};
            return fail("",
                        { "heat.block_range",
                          "a block is measured at {0}",
                          { QuantityRange { asTemperature(-60), asTemperature(200) } } });
        });
    connect(r.reading, &QuantityField::entered, this, [this, row](double m, bool on) {
        const bool stored = store(row, [m](HeatPoint &p) {
            p.reading_um = std::round(m * 1e9) / 1e3; // a nanometre
        });
        if (stored && on)
            moveOn(m_rows[row].reading, row, 1);
    });
    connect(r.reading, &QuantityField::cleared, this, [this, row] { takeBack(row); });
    connect(r.zero, &QuantityField::entered, this, [this, row](double c, bool on) {
        if (store(row, [c](HeatPoint &p) { p.zero_c = std::round(c * 100) / 100; }) && on)
            moveOn(m_rows[row].reading, row, 1);
    });
}

void HeatLogCard::watch(QuantityField *field, size_t row)
{
    connect(field, &QuantityField::refused, this,
            [this](const QString &why) { say(why, Theme::current().hold); });
    connect(field, &QuantityField::understood, this, [this](const QString &) { showVerdict(); });
    connect(field, &QuantityField::goBack, this, [this, field, row] { moveOn(field, row, -1); });
    connect(field, &QuantityField::moveOn, this, [this, field, row] { moveOn(field, row, 1); });
}

std::vector<QuantityField *> HeatLogCard::cells(size_t row) const
{
    std::vector<QuantityField *> out = m_rows[row].spots;
    out.push_back(m_rows[row].reading);
    return out;
}

void HeatLogCard::moveOn(QuantityField *from, size_t row, int by)
{
    const auto here = cells(row);
    const auto at = std::find(here.begin(), here.end(), from) - here.begin() + by;
    QuantityField *to = nullptr;
    if (at >= 0 && at < static_cast<std::ptrdiff_t>(here.size()))
        to = here[static_cast<size_t>(at)];
    else if (at < 0 && row > 0)
        to = cells(row - 1).back();
    else if (at > 0 && row + 1 < m_rows.size())
        to = cells(row + 1).front();
    if (!to)
        return;
    to->setFocus();
    findChild<QScrollArea *>()->ensureWidgetVisible(to, 0, 30);
}

const HeatPoint *HeatLogCard::point(size_t row) const
{
    if (row >= m_log.points.size())
        return nullptr;
    for (const HeatPoint *p : standingHeatPoints(m_open.build(), m_log.stop))
        if (p->id == m_log.points[row].id)
            return p;
    return nullptr;
}

bool HeatLogCard::store(size_t row, const std::function<void(HeatPoint &)> &change)
{
    HeatPoint p;
    p.stop = m_log.stop;
    p.zero_c = 20;
    const HeatPoint *former = point(row);
    // A new point is taken as the last one was.
    const HeatPoint *like = former ? former
        : m_log.points.empty()     ? nullptr
                                   : point(m_log.points.size() - 1);
    if (former) {
        p = *former;
        p.replaces = former->id;
    } else if (like) {
        p.surface = like->surface;
        p.zero_c = like->zero_c;
        p.journalWithBlock = like->journalWithBlock;
    }
    change(p);
    // The thermometer as it is set now belongs to temperatures taken now, not to older ones.
    if (!former || former->spots_c != p.spots_c || former->surface != p.surface) {
        p.instrumentEmissivity = m_open.build().heat.instrumentEmissivity;
        p.surroundings_c = m_open.build().heat.surroundings_c;
    }
    // The gauge this bore was measured with lies at hand.
    for (const Reading *r : standingReadings(m_open.build()))
        if (r->stop == p.stop && r->family == "main" && r->method == "zeroed_bore_gauge") {
            p.instrument = r->instrument;
            p.u_um = r->u_um;
        }
    p.by = m_open.worker();
    p.at = OpenBuild::now();
    const auto done = m_open.edit(EnterHeatPoint { p });
    if (!done)
        say(qs(done.error().message), Theme::current().hold);
    return done.has_value();
}

void HeatLogCard::storeSpots(size_t row)
{
    std::vector<double> all;
    for (const QuantityField *f : m_rows[row].spots)
        if (f->value())
            all.push_back(std::round(*f->value() * 100) / 100);
    store(row, [&](HeatPoint &p) { p.spots_c = all; });
}

void HeatLogCard::takeBack(size_t row)
{
    if (point(row))
        store(row, [](HeatPoint &p) { p.takenBack = true; });
}

void HeatLogCard::takeFocus()
{
    for (size_t r = 0; r < m_rows.size(); ++r)
        for (QuantityField *f : cells(r))
            if (!f->value()) {
                f->setFocus();
                return;
            }
}

void HeatLogCard::setLog(const HeatLog &log)
{
    m_log = log;
    const Stop *stop = m_open.build().engine.find(log.stop);
    m_title->setText(stop ? tr("Heated-block test, %1").arg(qs(stop->name))
                          : tr("Heated-block test"));
    setTone(m_hint, Theme::current().muted);
    while (m_rows.size() < std::max(leastRows, log.points.size() + 1))
        addRow();
    for (size_t r = 0; r < m_rows.size(); ++r)
        showRow(r);
    showVerdict();
}

void HeatLogCard::showRow(size_t row)
{
    Row &r = m_rows[row];
    const HeatPoint *p = point(row);
    const bool open = row <= m_log.points.size() && !m_log.stop.empty();
    for (QuantityField *f : { r.spots[0], r.spots[1], r.spots[2], r.zero })
        f->setDecimals(0);
    r.reading->setDecimals(1);
    const auto show = [&](QuantityField *f, std::optional<double> si) {
        f->setEnabled(open);
        if (!f->isModified() || !f->hasFocus())
            f->setValue(si);
    };
    for (size_t s = 0; s < spots; ++s)
        show(r.spots[s], p && s < p->spots_c.size() ? std::optional(p->spots_c[s]) : std::nullopt);
    show(r.reading, p && p->reading_um ? std::optional(*p->reading_um * 1e-6) : std::nullopt);
    show(r.zero, p ? std::optional(p->zero_c) : std::nullopt);
    r.surface->setEnabled(open);
    for (size_t i = 0; i < surfaces().size(); ++i)
        if (surfaces()[i].id == (p ? p->surface : "contact"))
            r.surface->setCurrentIndex(static_cast<int>(i));
    auto *mark = static_cast<MarkView *>(r.mark);
    if (!p) {
        for (QLabel *l : { r.metal, r.spread, r.running })
            l->clear();
        mark->set(std::nullopt, {});
        return;
    }
    const JudgedHeatPoint &j = m_log.points[row];
    r.metal->setText(j.metal_c ? Figure::temperature(*j.metal_c).number : QString());
    r.spread->setText(p->spots_c.size() > 1 ? inWords(asTemperatureDifference(j.spread_k))
                                            : QString());
    r.running->setText(j.running_um && j.counts ? Figure::clearance(*j.running_um, 1).number
                                                : QString());
    mark->set(j.mark, qs(j.verdict));
}

void HeatLogCard::say(const QString &text, const QColor &colour)
{
    m_say->setText(text);
    setTone(m_say, colour);
}

void HeatLogCard::showVerdict()
{
    // The row one stands in speaks; otherwise the first that is wrong.
    const JudgedHeatPoint *speaks = nullptr;
    for (size_t r = 0; r < m_log.points.size(); ++r) {
        const auto here = cells(r);
        if (std::any_of(here.begin(), here.end(), [](QuantityField *f) { return f->hasFocus(); })
            && m_log.points[r].mark == Mark::LookAgain)
            speaks = &m_log.points[r];
    }
    for (const JudgedHeatPoint &j : m_log.points)
        if (!speaks && j.mark == Mark::LookAgain)
            speaks = &j;
    if (speaks)
        say(qs(speaks->verdict), Theme::current().mark(speaks->mark));
    else
        say(m_log.points.empty()
                ? tr("Three spots, then the bore. Gauge it cold first, then at two temperatures or "
                     "more; re-zero the gauge before and after.")
                : tr("Every point agrees with the growth."),
            Theme::current().muted);
    const bool own = m_open.build().expansions.contains(std::string(mainHousing));
    m_fit->setText(qs(m_log.verdict));
    if (m_log.fit) {
        // Over ten degrees of the reader's scale: a step of a thermometer he knows.
        const double ten = fromShownUnit(10, Shows::TemperatureDifference, Figure::system());
        const auto grown = [ten](double um_per_k, double u) {
            return inWords(withUncertainty(asClearance(um_per_k * ten, u * ten)));
        };
        m_fit->setText(
            tr("%1. Grows %2 over %3 running, %4 as the bore gauge sees it with a cold journal")
                .arg(qs(m_log.verdict),
                     grown(m_log.running_um_per_k, m_log.slopeU_um_per_k.value_or(0)),
                     inWords(asTemperatureDifference(ten)), grown(m_log.gauge_um_per_k, 0)));
    }
    setTone(m_fit,
            m_log.mark == Mark::LookAgain ? Theme::current().lookAgain : Theme::current().ink);
    m_use->setVisible(own || (m_log.fit && m_log.mark == Mark::Proven));
    m_use->setText(own ? tr("Back to the handbook's") : tr("Use it for the main housings"));
}

} // namespace mildpath
