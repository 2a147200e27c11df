// SPDX-License-Identifier: GPL-3.0-or-later
#include "window/window.h"

#include "devices/serialgauge.h"
#include "devices/serialsender.h"
#include "entry/namefield.h"
#include "entry/quantityfield.h"
#include "shell/nextcard.h"
#include "window/benches.h"
#include "window/whoworks.h"

#include <QApplication>
#include <QCloseEvent>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QMenuBar>
#include <QPainter>
#include <QPushButton>
#include <QSettings>
#include <QShortcut>
#include <QStackedWidget>
#include <QTabBar>
#include <QVBoxLayout>

#include <algorithm>

namespace mildpath {
namespace {

constexpr int railWidth = 210;

/// Bench names in a row; the chosen one stands on a card with a line in the selection's colour.
class BenchTabs : public QTabBar
{
public:
    using QTabBar::QTabBar;

protected:
    QSize tabSizeHint(int index) const override
    {
        const QFontMetrics metrics(textFont(TextSize::Body, true));
        int words = 0;
        for (int i = 0; i < count(); ++i)
            words += metrics.horizontalAdvance(tabText(i));
        const int air = std::clamp((width() - words) / std::max(1, count()), 6, 26);
        return { metrics.horizontalAdvance(tabText(index)) + air, 38 };
    }
    QSize minimumTabSizeHint(int index) const override { return tabSizeHint(index); }
    QSize minimumSizeHint() const override { return { 100, 38 }; }
    void paintEvent(QPaintEvent *) override
    {
        const Theme &t = Theme::current();
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        for (int i = 0; i < count(); ++i) {
            const QRectF r = tabRect(i);
            const bool chosen = i == currentIndex();
            if (chosen) {
                p.setPen(Qt::NoPen);
                p.setBrush(t.panel);
                p.drawRoundedRect(r.adjusted(1, 5, -1, 6), 5, 5);
                p.fillRect(QRectF(r.left() + 1, r.bottom() - 2, r.width() - 2, 3), t.selection);
            }
            if (chosen && hasFocus()) {
                p.setPen(QPen(t.selection, 1));
                p.setBrush(Qt::NoBrush);
                p.drawRoundedRect(r.adjusted(4.5, 8.5, -4.5, -6.5), 4, 4);
            }
            p.setFont(textFont(TextSize::Body, chosen));
            p.setPen(chosen ? t.selection : t.ink);
            p.drawText(r.adjusted(0, 3, 0, 0), Qt::AlignCenter, tabText(i));
        }
    }
};

/// A hairline and a background in a role that follows the theme.
class Surface : public QWidget
{
public:
    enum Line { NoLine, Right, Left, Bottom };
    Surface(QColor Theme::*colour, Line line, QWidget *parent)
        : QWidget(parent)
        , m_colour(colour)
        , m_line(line)
    {
    }

protected:
    void paintEvent(QPaintEvent *) override
    {
        const Theme &t = Theme::current();
        QPainter p(this);
        p.fillRect(rect(), t.*m_colour);
        p.setPen(t.line);
        if (m_line == Right)
            p.drawLine(width() - 1, 0, width() - 1, height());
        else if (m_line == Left)
            p.drawLine(0, 0, 0, height());
        else if (m_line == Bottom)
            p.drawLine(0, height() - 1, width(), height() - 1);
    }

private:
    QColor Theme::*m_colour;
    Line m_line;
};

QVBoxLayout *tightColumn(QWidget *owner)
{
    auto *layout = new QVBoxLayout(owner);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(0);
    return layout;
}

} // namespace

MessageBar::MessageBar(QWidget *parent)
    : QWidget(parent)
    , m_text(new QLabel(this))
    , m_buttons(new QWidget(this))
{
    setObjectName(QStringLiteral("messageBar"));
    auto *row = new QHBoxLayout(this);
    row->setContentsMargins(14, 6, 10, 6);
    m_text->setWordWrap(true);
    m_text->setTextInteractionFlags(Qt::TextSelectableByMouse);
    row->addWidget(m_text, 1);
    row->addWidget(m_buttons);
    auto *buttons = new QHBoxLayout(m_buttons);
    buttons->setContentsMargins(0, 0, 0, 0);
    hide();
}

void MessageBar::say(const QString &text, const std::vector<Answer> &answers)
{
    m_text->setText(text);
    setAccessibleName(text);
    for (QPushButton *old : m_buttons->findChildren<QPushButton *>()) {
        old->hide();
        old->deleteLater();
        old->setObjectName({});
    }
    const auto add
        = [this](const QString &name, const QString &label, std::function<void()> chosen) {
              auto *button = new QPushButton(label, m_buttons);
              button->setObjectName(name);
              m_buttons->layout()->addWidget(button);
              connect(button, &QPushButton::clicked, this, [this, chosen = std::move(chosen)] {
                  hide();
                  if (chosen)
                      chosen();
              });
          };
    for (size_t i = 0; i < answers.size(); ++i)
        add(QStringLiteral("answer%1").arg(i), answers[i].text, answers[i].chosen);
    add(QStringLiteral("closeMessage"), answers.empty() ? tr("Close") : tr("Later"), {});
    show();
}

QString MessageBar::text() const
{
    return isHidden() ? QString() : m_text->text();
}

void MessageBar::paintEvent(QPaintEvent *)
{
    QPainter p(this);
    p.fillRect(rect(), Theme::current().selectionFill);
    p.setPen(Theme::current().line);
    p.drawLine(0, height() - 1, width(), height() - 1);
}

MainWindow::MainWindow(const QString &stateFolder, QWidget *parent)
    : QMainWindow(parent)
    , m_open(new OpenBuild(stateFolder, this))
    , m_gauge(new SerialGauge(this))
    , m_sender(new SerialSender(this))
{
    setObjectName(QStringLiteral("mainWindow"));
    setAcceptDrops(true);
    setMinimumSize(1100, 700);
    resize(1280, 800);

    m_faces = new QStackedWidget(this);
    setCentralWidget(m_faces);
    auto *page = new Surface(&Theme::bench, Surface::NoLine, m_faces);
    m_faces->addWidget(page);
    auto *column = tightColumn(page);

    makeHead(page);
    makeMiddle(page);
    m_strip = new ReadoutStrip(*m_open, page);
    column->addWidget(m_strip);

    for (Bench *bench : makeBenches(*m_open, m_gauge, m_sender, m_stack))
        addBench(bench);
    makeMenus();
    m_worker = new WhoWorks(*m_open, menuBar());
    menuBar()->setCornerWidget(m_worker);
    makeBegin();
    m_rail->setFocus();

    connectParts();
}

/// The build's name over the rail, the benches beside it.
void MainWindow::makeHead(QWidget *page)
{
    auto *head = new Surface(&Theme::bench, Surface::Bottom, page);
    head->setFixedHeight(39);
    auto *headRow = new QHBoxLayout(head);
    headRow->setContentsMargins(6, 0, 8, 0);
    headRow->setSpacing(0);
    m_name = new NameField(head);
    m_name->setObjectName(QStringLiteral("buildName"));
    m_name->setAccessibleName(tr("Name of the build"));
    m_name->setFixedWidth(railWidth - 10);
    connect(m_name, &QLineEdit::editingFinished, this, &MainWindow::rename);
    headRow->addWidget(m_name);
    headRow->addSpacing(8);
    m_tabs = new BenchTabs(head);
    m_tabs->setObjectName(QStringLiteral("benchTabs"));
    m_tabs->setDrawBase(false);
    m_tabs->setExpanding(false);
    m_tabs->setFocusPolicy(Qt::TabFocus);
    m_tabs->setAccessibleName(tr("Benches"));
    // All of them are to be seen: where there is little room they move closer together.
    m_tabs->setUsesScrollButtons(false);
    headRow->addWidget(m_tabs, 1, Qt::AlignBottom);
    page->layout()->addWidget(head);
}

/// Rail, benches with the messages above them, side panel.
void MainWindow::makeMiddle(QWidget *page)
{
    auto *middle = new QHBoxLayout;
    middle->setContentsMargins(0, 0, 0, 0);
    middle->setSpacing(0);
    static_cast<QVBoxLayout *>(page->layout())->addLayout(middle, 1);

    auto *railSide = new Surface(&Theme::panel, Surface::Right, page);
    railSide->setFixedWidth(railWidth);
    auto *railColumn = tightColumn(railSide);
    railColumn->setContentsMargins(0, 4, 1, 0);
    m_next = new NextCard(*m_open, railSide);
    connect(m_next, &NextCard::goAsked, this, &MainWindow::goToCheck);
    connect(m_next, &NextCard::liveAsked, this,
            [this] { showPage(Place::Start, QStringLiteral("live")); });
    railColumn->addWidget(m_next);
    auto *railHead = new RailHead(railSide);
    railHead->setFixedHeight(22);
    railColumn->addWidget(railHead);
    m_rail = new Rail(*m_open, railSide);
    railColumn->addWidget(m_rail, 1);
    middle->addWidget(railSide);

    auto *centre = new QWidget(page);
    m_messagePlace = centre;
    auto *centreColumn = tightColumn(centre);
    m_messages = new MessageBar(centre);
    centreColumn->addWidget(m_messages);
    m_stack = new QStackedWidget(centre);
    centreColumn->addWidget(m_stack, 1);
    middle->addWidget(centre, 1);

    auto *panelSide = new Surface(&Theme::panel, Surface::Left, page);
    tightColumn(panelSide);
    m_panel = new SidePanel(panelSide);
    m_panel->viewport()->setAutoFillBackground(false);
    panelSide->layout()->addWidget(m_panel);
    panelSide->setObjectName(QStringLiteral("panelSide"));
    middle->addWidget(panelSide);
}

void MainWindow::connectParts()
{
    connect(m_tabs, &QTabBar::currentChanged, this, [this](int index) {
        m_stack->setCurrentIndex(index);
        refresh();
    });
    connect(m_open, &OpenBuild::changed, this, &MainWindow::refresh);
    connect(m_open, &OpenBuild::stopSelected, this, &MainWindow::refresh);
    connect(m_open, &OpenBuild::titleChanged, this, &MainWindow::updateTitle);
    connect(m_open, &OpenBuild::journalFailed, this, [this](const QString &why) {
        m_messages->say(tr("Edits are not being kept against a crash: %1. Save often.").arg(why));
    });
    connect(m_open, &OpenBuild::journalKept, this,
            [this] { m_messages->say(tr("Edits are kept against a crash again.")); });
    connect(m_open, &OpenBuild::checkWanted, this, &MainWindow::goToCheck);
    connect(m_open, &OpenBuild::mapWanted, this, [this] { showBench(Place::Route); });
    connect(m_strip, &ReadoutStrip::benchAsked, this, [this](Place place, const QString &stop) {
        if (!stop.isEmpty())
            m_open->selectStop(stop);
        showBench(place);
    });
}

void MainWindow::addBench(Bench *bench)
{
    m_benches.push_back(bench);
    m_stack->addWidget(bench);
    m_tabs->addTab(bench->title());
    connect(bench, &Bench::panelChanged, this, [this, bench] {
        if (bench == currentBench())
            m_panel->setContent(bench->panel());
    });
    connect(bench, &Bench::benchAsked, this, &MainWindow::showBench);
    connect(bench, &Bench::complained, this,
            [this](const QString &text) { m_messages->say(text); });
    connect(bench, &Bench::asked, m_messages, &MessageBar::say);
    connect(bench, &Bench::openAsked, this, [this](const QString &path) {
        if (mayLeave())
            openFile(path);
    });
}

Bench *MainWindow::currentBench() const
{
    return m_benches[static_cast<size_t>(m_stack->currentIndex())];
}

Bench *MainWindow::benchAt(Place place) const
{
    for (Bench *bench : m_benches)
        if (bench->place() == place)
            return bench;
    return nullptr;
}

void MainWindow::showPage(Place place, const QString &page)
{
    showBench(place);
    if (Bench *bench = benchAt(place))
        bench->showPage(page);
}

void MainWindow::showBench(Place place)
{
    for (size_t i = 0; i < m_benches.size(); ++i)
        if (m_benches[i]->place() == place)
            m_tabs->setCurrentIndex(static_cast<int>(i));
}

void MainWindow::refresh()
{
    if (m_open->build().engine.stops.empty())
        return;
    currentBench()->refresh();
    m_panel->setContent(currentBench()->panel());
    updateTitle();
}

void MainWindow::updateTitle()
{
    const QString name = qs(m_open->build().name);
    if (!m_name->isModified()) {
        m_name->setText(name);
        m_name->setCursorPosition(0);
    }
    m_name->setToolTip(name + u'\n' + tr("The build's name; click to change it"));
    setWindowTitle(name + QStringLiteral("[*] – Mild Path"));
    setWindowModified(m_open->isModified());
}

void MainWindow::rename()
{
    const std::string name = m_name->text().trimmed().toStdString();
    m_name->setModified(false);
    if (name != m_open->build().name && !m_open->edit(Rename { name }))
        m_messages->say(tr("A build needs a name."));
    updateTitle();
}

void MainWindow::setTheme(ThemeChoice choice)
{
    m_theme = choice;
    applyTheme(*qApp, choice);
    m_strip->refresh();
    refresh();
}

void MainWindow::setUnits(UnitSystem system)
{
    Figure::setSystem(system);
    for (QuantityField *field : findChildren<QuantityField *>())
        field->followUnits();
    m_strip->refresh();
    refresh();
}

void MainWindow::closeEvent(QCloseEvent *event)
{
    // What was typed and not yet entered is entered first: it is asked about like the rest.
    if (QWidget *typing = focusWidget())
        typing->clearFocus();
    if (!mayLeave()) {
        event->ignore();
        return;
    }
    m_open->giveUp(); // asked for, or all is saved
    QSettings settings;
    settings.setValue(QStringLiteral("window/geometry"), saveGeometry());
    settings.setValue(QStringLiteral("window/theme"), static_cast<int>(m_theme));
    settings.setValue(QStringLiteral("window/units"), static_cast<int>(Figure::system()));
    event->accept();
}

} // namespace mildpath
