// SPDX-License-Identifier: GPL-3.0-or-later
#include "begin/beginpage.h"

#include "begin/smallroute.h"
#include "begin/tiles.h"
#include "entry/arrowcombo.h"
#include "paint/card.h"
#include "paint/marks.h"

#include <QFileInfo>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include <array>

namespace mildpath {

/// A build's own route with its marks.
class RoutePicture : public QWidget
{
public:
    using QWidget::QWidget;
    void setBuild(const KnownBuild &build)
    {
        m_build = build.build;
        m_marks = build.marks;
        update();
    }

protected:
    void paintEvent(QPaintEvent *) override
    {
        QPainter p(this);
        if (m_build)
            drawSmallRoute(p, *m_build, QRectF(rect()).adjusted(4, 4, -4, -4), m_marks);
    }

private:
    std::shared_ptr<const Build> m_build;
    std::map<std::string, Mark> m_marks;
};

namespace {

/// A mark beside a line of text.
class MarkDot : public QWidget
{
public:
    MarkDot(std::optional<Mark> mark, QWidget *parent)
        : QWidget(parent)
        , m_mark(mark)
    {
        setFixedSize(16, 16);
    }

protected:
    void paintEvent(QPaintEvent *) override
    {
        QPainter p(this);
        if (m_mark)
            drawMark(p, QPointF(8, 8), 11, *m_mark);
    }

private:
    std::optional<Mark> m_mark;
};

QLabel *label(const QString &text, TextSize size, bool bold, QWidget *parent)
{
    auto *out = new QLabel(text, parent);
    out->setFont(textFont(size, bold));
    out->setWordWrap(true);
    return out;
}

QPushButton *button(const QString &text, const char *name, QWidget *parent)
{
    auto *out = new QPushButton(text, parent);
    out->setObjectName(QString::fromLatin1(name));
    out->setAutoDefault(true);
    return out;
}

QVBoxLayout *columnIn(QWidget *card)
{
    auto *column = new QVBoxLayout(card);
    column->setContentsMargins(18, 12, 18, 14);
    column->setSpacing(5);
    return column;
}

void empty(QVBoxLayout *layout)
{
    while (QLayoutItem *item = layout->takeAt(0)) {
        if (QWidget *widget = item->widget()) {
            widget->hide();
            widget->setObjectName({});
            widget->deleteLater();
        }
        delete item;
    }
}

} // namespace

BeginPage::BeginPage(QWidget *parent)
    : QWidget(parent)
{
    setObjectName(QStringLiteral("beginPage"));
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(40, 16, 40, 18);
    column->setSpacing(10);
    column->addWidget(label(tr("What are you working on?"), TextSize::Title, true, this));
    auto *row = new QHBoxLayout;
    row->setSpacing(28);
    auto *left = new QVBoxLayout;
    left->setSpacing(12);
    m_goOnCard = goOnCard();
    left->addWidget(m_goOnCard);
    left->addWidget(othersCard(), 1);
    left->addWidget(practiseCard());
    row->addLayout(left, 36);
    row->addWidget(newSide(), 64);
    column->addLayout(row, 1);
}

QWidget *BeginPage::goOnCard()
{
    auto *card = new CardWidget(this);
    auto *column = columnIn(card);
    auto *head = new QHBoxLayout;
    head->addWidget(label(tr("Go on"), TextSize::Normal, true, card));
    m_saved = label({}, TextSize::Small, false, card);
    m_saved->setAlignment(Qt::AlignRight);
    head->addWidget(m_saved, 1);
    column->addLayout(head);
    m_name = label({}, TextSize::Title, true, card);
    m_name->setObjectName(QStringLiteral("begin.name"));
    column->addWidget(m_name);
    m_engine = label({}, TextSize::Small, false, card);
    column->addWidget(m_engine);
    m_picture = new RoutePicture(card);
    m_picture->setMinimumHeight(96);
    m_picture->setMaximumHeight(150);
    column->addWidget(m_picture, 1);
    m_holds = label({}, TextSize::Normal, true, card);
    m_can = label({}, TextSize::Small, false, card);
    m_next = label({}, TextSize::Small, false, card);
    for (QLabel *l : { m_holds, m_can, m_next })
        column->addWidget(l);
    m_firstUnsaved = new QVBoxLayout;
    column->addLayout(m_firstUnsaved);
    auto *foot = new QHBoxLayout;
    foot->addStretch();
    m_goOn = button(tr("Go on"), "begin.goOn", card);
    m_goOn->setDefault(true);
    m_goOn->setProperty("leads", true); // the one to press
    m_goOn->setMinimumWidth(120);
    foot->addWidget(m_goOn);
    column->addLayout(foot);
    connect(m_goOn, &QPushButton::clicked, this, [this] { Q_EMIT openAsked(m_path); });
    return card;
}

QWidget *BeginPage::othersCard()
{
    auto *card = new CardWidget(this);
    m_others = card;
    auto *column = columnIn(card);
    column->addWidget(label(tr("Other builds"), TextSize::Normal, true, card));
    auto *area = new QScrollArea(card);
    area->setFrameShape(QFrame::NoFrame);
    area->setWidgetResizable(true);
    area->setStyleSheet(QStringLiteral("background: transparent;"));
    auto *inside = new QWidget(area);
    m_rows = new QVBoxLayout(inside);
    m_rows->setContentsMargins(0, 0, 0, 0);
    m_rows->setSpacing(4);
    area->setWidget(inside);
    column->addWidget(area, 1);
    auto *foot = new QHBoxLayout;
    auto *open = button(tr("Open a file…"), "begin.open", card);
    foot->addWidget(open);
    foot->addWidget(label(tr("or drop one on the window"), TextSize::Small, false, card), 1);
    column->addLayout(foot);
    connect(open, &QPushButton::clicked, this, &BeginPage::fileAsked);
    return card;
}

QWidget *BeginPage::practiseCard()
{
    auto *card = new CardWidget(this);
    auto *column = columnIn(card);
    column->addWidget(label(tr("Practise"), TextSize::Normal, true, card));
    column->addWidget(label(tr("A copy of a build with faults in it. Gauge, break, start and mend "
                               "it as you like: no build of yours is touched."),
                            TextSize::Small, false, card));
    auto *foot = new QHBoxLayout;
    auto *open = button(tr("Open a practice copy"), "begin.practise", card);
    foot->addWidget(open);
    foot->addStretch();
    column->addLayout(foot);
    connect(open, &QPushButton::clicked, this, &BeginPage::practiseAsked);
    return card;
}

QWidget *BeginPage::newSide()
{
    auto *side = new QWidget(this);
    auto *column = new QVBoxLayout(side);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(8);
    auto *head = new QHBoxLayout;
    auto *title = label(tr("New build"), TextSize::Body, true, side);
    title->setWordWrap(false);
    head->addWidget(title);
    head->addWidget(label(tr("every size is assumed, and marked so, until you enter yours"),
                          TextSize::Small, false, side),
                    1);
    column->addLayout(head);
    auto *describe = new CardWidget(side);
    auto *row = new QHBoxLayout(describe);
    row->setContentsMargins(18, 8, 18, 8);
    auto *words = new QVBoxLayout;
    words->addWidget(label(tr("Describe the engine"), TextSize::Normal, true, describe));
    words->addWidget(label(tr("layout, bore and stroke, valves, what feeds what: the oil's way is "
                              "made from it"),
                           TextSize::Small, false, describe));
    row->addLayout(words, 1);
    auto *ask = button(tr("Describe…"), "begin.describe", describe);
    ask->setToolTip(tr("N"));
    row->addWidget(ask);
    column->addWidget(describe);
    connect(ask, &QPushButton::clicked, this, &BeginPage::describeAsked);
    column->addWidget(label(tr("or begin from one of these"), TextSize::Normal, true, side));
    m_tiles = new EngineTiles(side);
    column->addWidget(m_tiles, 1);
    auto *foot = new QHBoxLayout;
    m_about = label({}, TextSize::Normal, true, side);
    foot->addWidget(m_about, 1);
    auto *make = button(tr("New build from it"), "begin.make", side);
    foot->addWidget(make);
    column->addLayout(foot);
    const auto made = [this] { Q_EMIT templateAsked(qs(m_tiles->chosen())); };
    connect(make, &QPushButton::clicked, this, made);
    connect(m_tiles, &EngineTiles::made, this, made);
    connect(m_tiles, &EngineTiles::picked, this, [this] { m_about->setText(m_tiles->about()); });
    column->addWidget(questionsCard());
    return side;
}

/// What is asked first, before it is asked.
QWidget *BeginPage::questionsCard()
{
    auto *card = new CardWidget(this);
    auto *column = columnIn(card);
    auto *head = new QHBoxLayout;
    auto *title = label(tr("What it asks first"), TextSize::Normal, true, card);
    title->setWordWrap(false);
    head->addWidget(title);
    head->addWidget(label(tr("all else can wait, and stays a ring until you enter it"),
                          TextSize::Small, false, card),
                    1);
    column->addLayout(head);
    const std::array<std::pair<QString, QString>, 5> questions { {
        { tr("1 Who and what"), tr("name, job, who works") },
        { tr("2 The engine"), tr("hot idle, highest speed") },
        { tr("3 Oil and use"), tr("grade, coldest start") },
        { tr("4 Whose limits"), tr("maker, shop or typical") },
        { tr("5 The pump"), tr("volume a turn, relief") },
    } };
    auto *row = new QHBoxLayout;
    for (const auto &[what, about] : questions) {
        auto *words = new QVBoxLayout;
        words->setSpacing(1);
        words->addWidget(label(what, TextSize::Small, true, card));
        words->addWidget(label(about, TextSize::Small, false, card));
        row->addLayout(words, 1);
    }
    column->addLayout(row);
    return card;
}

void BeginPage::show(const QStringList &recent, std::vector<Recovery> recoveries)
{
    m_recoveries = std::move(recoveries);
    m_path.clear();
    m_tiles->load();
    m_about->setText(m_tiles->about());
    m_goOnCard->setVisible(!recent.isEmpty());
    empty(m_rows);
    empty(m_firstUnsaved);
    for (const Recovery &r : m_recoveries)
        if (!recent.contains(qs(r.buildPath)))
            addUnsaved(r, m_rows);
    if (recent.isEmpty()) {
        m_rows->addWidget(label(tr("None yet."), TextSize::Small, false, m_others));
        m_rows->addStretch();
        m_tiles->setFocus();
        return;
    }
    m_name->setText(QFileInfo(recent.front()).completeBaseName());
    m_path = recent.front();
    m_goOn->setFocus();
    m_first.ask([path = recent.front()](Progress &) { return knownBuild(path, true); },
                [this](KnownBuild build) { showFirst(std::move(build)); });
    m_othersAsked.ask(
        [paths = recent.mid(1)](Progress &progress) {
            std::vector<KnownBuild> out;
            for (const QString &path : paths)
                if (!progress.cancel)
                    out.push_back(knownBuild(path, false));
            return out;
        },
        [this](const std::vector<KnownBuild> &builds) { showOthers(builds); });
}

const Recovery *BeginPage::unsavedOf(const QString &path) const
{
    for (const Recovery &r : m_recoveries)
        if (qs(r.buildPath) == path)
            return &r;
    return nullptr;
}

void BeginPage::showFirst(KnownBuild build)
{
    const Theme &t = Theme::current();
    m_name->setText(build.name);
    m_engine->setText(build.trouble.isEmpty() ? build.engine : build.trouble);
    setTone(m_engine, build.trouble.isEmpty() ? t.muted : t.hold);
    m_saved->setText(build.saved.isEmpty() ? QString() : tr("saved %1").arg(build.saved));
    setTone(m_saved, t.muted);
    m_holds->setText(build.holds);
    setTone(m_holds, t.hold);
    m_holds->setVisible(!build.holds.isEmpty());
    m_can->setText(build.can);
    m_next->setText(build.next.isEmpty() ? QString() : tr("Next: %1").arg(build.next));
    setTone(m_next, t.muted);
    m_picture->setBuild(build);
    m_goOn->setEnabled(build.trouble.isEmpty());
    empty(m_firstUnsaved);
    if (const Recovery *r = unsavedOf(build.path))
        addUnsaved(*r, m_firstUnsaved);
}

/// Edits that were not saved stand at their build.
void BeginPage::addUnsaved(const Recovery &recovery, QVBoxLayout *to)
{
    auto *row = new QWidget(this);
    auto *line = new QHBoxLayout(row);
    line->setContentsMargins(0, 0, 0, 0);
    const QString edits = counted(recovery.edits.size(), tr("edit"), tr("edits"));
    auto *words = label(recovery.buildPath.empty()
                            ? tr("%1, never saved: %2").arg(qs(recovery.recovered.name), edits)
                            : tr("%1 not saved").arg(edits),
                        TextSize::Small, true, row);
    setTone(words, Theme::current().lookAgain);
    line->addWidget(words, 1);
    auto *restore = button(tr("Restore"), "begin.restore", row);
    auto *leave = button(tr("Give up"), "begin.leave", row);
    line->addWidget(restore);
    line->addWidget(leave);
    connect(restore, &QPushButton::clicked, this,
            [this, recovery] { Q_EMIT restoreAsked(recovery); });
    connect(leave, &QPushButton::clicked, this, [this, row, recovery] {
        row->hide();
        Q_EMIT leaveAsked(recovery);
    });
    to->addWidget(row);
}

void BeginPage::showOthers(const std::vector<KnownBuild> &builds)
{
    for (const KnownBuild &b : builds) {
        addOther(b);
        if (const Recovery *r = unsavedOf(b.path))
            addUnsaved(*r, m_rows);
    }
    if (builds.empty())
        m_rows->addWidget(label(tr("None yet."), TextSize::Small, false, m_others));
    m_rows->addStretch();
}

void BeginPage::addOther(const KnownBuild &b)
{
    const Theme &t = Theme::current();
    auto *row = new QWidget(this);
    auto *line = new QHBoxLayout(row);
    line->setContentsMargins(0, 2, 6, 2);
    line->setSpacing(6);
    const bool whole = b.trouble.isEmpty();
    line->addWidget(new MarkDot(b.mark, row), 0, Qt::AlignTop);
    auto *words = new QVBoxLayout;
    words->setSpacing(0);
    auto *open = new QPushButton(b.name, row);
    open->setObjectName(QStringLiteral("begin.other"));
    open->setProperty("plain", true);
    open->setFont(textFont(TextSize::Small, true));
    open->setToolTip(b.path);
    open->setEnabled(whole);
    open->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    words->addWidget(open);
    auto *about = label(whole ? (b.holds.isEmpty() ? b.engine : b.holds) : b.trouble,
                        TextSize::Small, false, row);
    setTone(about, whole ? t.muted : t.hold);
    words->addWidget(about);
    line->addLayout(words, 1);
    if (!b.older.isEmpty()) {
        auto *older = button(tr("Older copy"), "begin.older", row);
        connect(older, &QPushButton::clicked, this,
                [this, path = b.older] { Q_EMIT openAsked(path); });
        line->addWidget(older);
    } else {
        auto *when = label(b.saved.section(u',', 0, 0), TextSize::Small, false, row);
        when->setWordWrap(false);
        setTone(when, t.muted);
        line->addWidget(when, 0, Qt::AlignTop);
    }
    connect(open, &QPushButton::clicked, this, [this, path = b.path] { Q_EMIT openAsked(path); });
    m_rows->addWidget(row);
}

void BeginPage::keyPressEvent(QKeyEvent *event)
{
    if (event->key() == Qt::Key_N && event->modifiers() == Qt::NoModifier)
        Q_EMIT describeAsked();
    else
        QWidget::keyPressEvent(event);
}

} // namespace mildpath
