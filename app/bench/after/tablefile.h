// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/figure.h"
#include "shell/openbuild.h"
#include "storage/files.h"

#include <QFileDialog>
#include <QHBoxLayout>
#include <QPushButton>

namespace mildpath {

/// A button that reads a table of entries from a file.
/// @param take  takes the text; what was wrong with it, or empty
template <class Take, class Say>
void addTableButton(QHBoxLayout *row, const QString &name, QWidget *page, Take take, Say say)
{
    auto *button = new QPushButton(QObject::tr("Read a table…"), page);
    button->setObjectName(name);
    row->addWidget(button);
    QObject::connect(button, &QPushButton::clicked, page, [page, take, say] {
        const QString file = QFileDialog::getOpenFileName(page, QObject::tr("Table to read"), {},
                                                          QObject::tr("Tables (*.csv *.txt)"));
        if (file.isEmpty())
            return;
        const auto text = readTextFile(file.toStdString());
        say(text ? take(*text) : qs(text.error().message));
    });
}

/// Records the entries of a table, all or none. @return what was wrong; empty: they were taken
template <class Entry>
QString takeTable(const std::vector<Error> &errors, const std::vector<Entry> &entries,
                  OpenBuild &open)
{
    if (!errors.empty()) {
        QStringList lines;
        constexpr size_t most = 3;
        for (size_t i = 0; i < std::min(most, errors.size()); ++i)
            lines << qs(errors[i].place + ": " + errors[i].message);
        if (errors.size() > most)
            lines << QObject::tr("and %1 more").arg(errors.size() - most);
        return lines.join(QStringLiteral("; ")) + QObject::tr(". Nothing was taken.");
    }
    // Tried on a copy first: the entry that does not go must not leave its forerunners behind.
    Build trial = open.build();
    for (size_t i = 0; i < entries.size(); ++i) {
        Entry entry = entries[i];
        auto next = applyEdit(trial, PassageEdit(AddEntry { entry }));
        if (!next)
            return QObject::tr("Entry %1: %2. Nothing was taken.")
                .arg(i + 1)
                .arg(qs(next.error().message));
        trial = std::move(*next);
    }
    for (const Entry &entry : entries)
        static_cast<void>(open.record(entry));
    return {};
}

} // namespace mildpath
