// SPDX-License-Identifier: GPL-3.0-or-later
#include "window/window.h"

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
            showPage(Place::Start, QStringLiteral("live"));
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

bool MainWindow::takeIn(Bench &bench, const Import &import, const QString &path)
{
    showBench(bench.place());
    const Import::Taken taken = import.take(path);
    if (!taken.said.isEmpty())
        m_messages->say(tr("%1: %2").arg(path, taken.said));
    return taken.ok;
}

bool MainWindow::importFile(const QString &id, const QString &path)
{
    for (Bench *bench : m_benches)
        for (const Import &import : bench->imports())
            if (import.id == id)
                return takeIn(*bench, import, path);
    return false;
}

bool MainWindow::importDropped(const QString &path)
{
    if (!path.endsWith(QStringLiteral(".csv")))
        return false;
    const auto text = readTextFile(path.toStdString());
    if (!text)
        return false;
    for (Bench *bench : m_benches)
        for (const Import &import : bench->imports())
            if (import.isOne && import.isOne(*text)) {
                takeIn(*bench, import, path);
                return true;
            }
    return false;
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
    m_messages->say(tr("%1 taken from %2.")
                        .arg(counted(table.readings.size(), tr("reading"), tr("readings")), from));
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
