// SPDX-License-Identifier: GPL-3.0-or-later
#include "shell/window.h"

#include "bench/after/afterbench.h"
#include "bench/after/filterpage.h"
#include "bench/after/oilpage.h"
#include "bench/finish/finishbench.h"
#include "bench/start/startbench.h"
#include "bench/start/startpage.h"
#include "devices/serialgauge.h"
#include "devices/serialsender.h"
#include "entry/readingentry.h"
#include "report/buildsheetdocument.h"
#include "storage/evidencetables.h"
#include "storage/files.h"
#include "storage/readingtable.h"

#include <QActionGroup>
#include <QFile>
#include <QInputDialog>
#include <QLineEdit>
#include <QMenu>
#include <QMenuBar>

namespace mildpath {

void MainWindow::makeDevicesMenu()
{
    QMenu *devices = menuBar()->addMenu(tr("&Devices"));
    m_gaugeMenu = devices->addMenu(tr("Connect &gauge"));
    connect(m_gaugeMenu, &QMenu::aboutToShow, this, [this] {
        m_gaugeMenu->clear();
        const QStringList ports = SerialGauge::ports();
        for (const QString &port : ports)
            m_gaugeMenu->addAction(port, this, [this, port] { connectGauge(port); });
        if (ports.isEmpty())
            m_gaugeMenu->addAction(tr("no serial port on this machine"))->setEnabled(false);
        m_gaugeMenu->addSeparator();
        m_gaugeMenu->addAction(tr("Another port…"), this, [this] {
            bool ok = false;
            const QString port
                = QInputDialog::getText(this, tr("Connect gauge"), tr("Name or path of the port"),
                                        QLineEdit::Normal, m_gauge->portName(), &ok);
            if (ok && !port.isEmpty())
                connectGauge(port);
        });
    });
    makeSenderMenu(devices);
    QAction *off = devices->addAction(tr("&Disconnect gauge"), m_gauge, &SerialGauge::close);
    off->setEnabled(false);
    QMenu *unit = devices->addMenu(tr("Readings without a &unit are"));
    auto *group = new QActionGroup(this);
    for (const char *name : { "mm", "um", "in", "thou" }) {
        QAction *action = unit->addAction(QLatin1String(name), this,
                                          [this, name] { m_gauge->setBareUnit(name); });
        action->setCheckable(true);
        action->setChecked(group->actions().isEmpty());
        group->addAction(action);
    }
    QMenu *sends = devices->addMenu(tr("The gauge &sends"));
    auto *ways = new QActionGroup(this);
    for (const auto &[text, way] :
         { std::pair(tr("as it moves: hold still to take"), SerialGauge::Sends::AsItMoves),
           std::pair(tr("when its key is pressed"), SerialGauge::Sends::ByKey) }) {
        QAction *action
            = sends->addAction(text, this, [this, way = way] { m_gauge->setSends(way); });
        action->setCheckable(true);
        action->setChecked(ways->actions().isEmpty());
        ways->addAction(action);
    }
    connect(m_gauge, &SerialGauge::stateChanged, this, [this, off] {
        off->setEnabled(m_gauge->state() != SerialGauge::State::Off);
        off->setText(m_gauge->state() == SerialGauge::State::Off
                         ? tr("&Disconnect gauge")
                         : tr("&Disconnect gauge on %1").arg(m_gauge->portName()));
    });
}

void MainWindow::makeSenderMenu(QMenu *devices)
{
    QMenu *menu = devices->addMenu(tr("Connect &sender of pressure and speed"));
    connect(menu, &QMenu::aboutToShow, this, [this, menu] {
        menu->clear();
        for (const QString &port : SerialLine::ports())
            menu->addAction(port, this, [this, port] { connectSender(port); });
        menu->addAction(tr("Another port…"), this, [this] {
            // Typed where the sender is shown, in the side panel of its bench.
            showBench(Place::Start);
            m_start->showPage(0);
            if (auto *port = m_panel->findChild<QLineEdit *>(QStringLiteral("start.port")))
                port->setFocus();
        });
    });
    QAction *off = devices->addAction(tr("Disconnect se&nder"), m_sender, &SerialSender::close);
    off->setEnabled(false);
    connect(m_sender, &SerialSender::stateChanged, this,
            [this, off] { off->setEnabled(m_sender->state() != SerialLine::State::Off); });
}

bool MainWindow::connectSender(const QString &port)
{
    if (const auto ok = m_sender->open(port); !ok) {
        m_messages->say(tr("%1 cannot be opened: %2. Is it plugged in, and may you use it?")
                            .arg(port, qs(ok.error().message)));
        return false;
    }
    showBench(Place::Start);
    return true;
}

bool MainWindow::importRun(const QString &path)
{
    showBench(Place::Start);
    m_start->showPage(0);
    const QString why = m_start->start().showImport(path);
    if (!why.isEmpty())
        m_messages->say(tr("%1: %2").arg(path, why));
    return why.isEmpty();
}

bool MainWindow::importTrace(const QString &path)
{
    showBench(Place::BoreFinish);
    const QString why = m_finish->importTrace(path);
    if (!why.isEmpty())
        m_messages->say(tr("%1: %2").arg(path, why));
    return why.isEmpty();
}

bool MainWindow::importEvidence(const QString &path)
{
    const auto text = readTextFile(path.toStdString());
    const bool cuts = text && isCutTable(*text);
    showBench(Place::After);
    m_after->showPage(cuts ? AfterBench::Filter : AfterBench::Oil);
    const QString why = !text ? qs(text.error().message)
        : cuts                ? m_after->filter().importTable(*text)
                              : m_after->oil().importTable(*text);
    m_messages->say(why.isEmpty() ? tr("%1 was taken.").arg(path) : tr("%1: %2").arg(path, why));
    return why.isEmpty();
}

bool MainWindow::writeSheet(const QString &path, bool letter)
{
    const auto ok
        = writeBuildSheet(m_open->build(), m_open->assessment(), OpenBuild::now().substr(0, 10),
                          letter ? Paper::Letter : Paper::A4, path);
    m_messages->say(ok ? tr("Build sheet written to %1.").arg(path)
                       : tr("%1: %2").arg(path, qs(ok.error().message)));
    return ok.has_value();
}

/// A log that was not finished: the program ended while it was recorded.
void MainWindow::offerRuns()
{
    const auto found
        = findUnfinishedRuns((m_open->stateFolder() + QStringLiteral("/runs")).toStdString());
    if (found.empty())
        return;
    const UnfinishedRun run = found.front();
    const QString path = qs(run.path.string());
    const auto forget = [path] { QFile::remove(path); };
    m_messages->say(tr("A log was not finished: %1 readings over %2 s. Take it into this build?")
                        .arg(run.run.points.size())
                        .arg(qs(formatNumber(run.run.points.back().t_s, 0))),
                    { { tr("Take it"),
                        [this, run] {
                            if (const auto ok = m_start->start().takeUnfinished(run); !ok)
                                m_messages->say(qs(ok.error().message));
                        } },
                      { tr("Give it up"), forget } });
}

bool MainWindow::connectGauge(const QString &port)
{
    if (const auto ok = m_gauge->open(port); !ok) {
        m_messages->say(tr("%1 cannot be opened: %2. Is it plugged in, and may you use it?")
                            .arg(port, qs(ok.error().message)));
        return false;
    }
    m_messages->say(
        tr("Gauge on %1. Choose a cell; hold the gauge still and its reading is taken.").arg(port));
    return true;
}

bool MainWindow::importReadings(const QString &path)
{
    const auto text = readTextFile(path.toStdString());
    if (!text) {
        m_messages->say(tr("%1: %2").arg(path, qs(text.error().message)));
        return false;
    }
    return takeTable(*text, path);
}

/// All or nothing: one wrong line and the build stays as it is.
bool MainWindow::takeTable(const std::string &text, const QString &from)
{
    const ReadingImport table = readingsFromTable(m_open->build(), text);
    if (!table.errors.empty()) {
        const Error &e = table.errors.front();
        QString why = tr("%1, %2: %3. Nothing was taken.").arg(from, qs(e.place), qs(e.message));
        if (table.errors.size() > 1)
            why += tr(" %1 more like it.").arg(table.errors.size() - 1);
        m_messages->say(why);
        return false;
    }
    if (const auto ok = m_open->edit(EnterReadings { table.readings }); !ok) {
        m_messages->say(tr("%1: %2 %3. Nothing was taken.")
                            .arg(from, qs(ok.error().place), qs(ok.error().message)));
        return false;
    }
    m_messages->say(tr("%1 readings taken from %2.").arg(table.readings.size()).arg(from));
    return true;
}

void MainWindow::pasteReadings(const QString &text)
{
    if (isReadingTable(text.toStdString())) {
        takeTable(text.toStdString(), tr("the clipboard"));
        return;
    }
    ReadingEntry *entry = currentBench()->findChild<ReadingEntry *>();
    if (!entry || !entry->paste(text))
        m_messages->say(
            tr("What was copied holds no readings: numbers in rows and columns, or a table "
               "with a header."));
}

bool MainWindow::exportReadings(const QString &path)
{
    if (const auto ok
        = writeOutput(path.toStdString(), readingsToCsv(m_open->build()), Over::AnyFile);
        !ok) {
        m_messages->say(tr("%1: %2").arg(path, qs(ok.error().message)));
        return false;
    }
    m_messages->say(tr("Readings written to %1.").arg(path));
    return true;
}

} // namespace mildpath
