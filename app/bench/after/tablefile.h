// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "open/openbuild.h"
#include "paint/figure.h"
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

/// Records the entries of a table as one edit, all or none. @param name  what the Edit menu says
/// @return what was wrong; empty: they were taken
template <class Entry>
QString takeTable(const std::vector<Error> &errors, const std::vector<Entry> &entries,
                  const QString &name, OpenBuild &open)
{
    if (!errors.empty()) {
        QStringList lines;
        constexpr size_t most = 3;
        for (size_t i = 0; i < std::min(most, errors.size()); ++i)
            lines << qs(errors[i]);
        if (errors.size() > most)
            lines << QObject::tr("and %1 more").arg(errors.size() - most);
        return lines.join(QStringLiteral("; ")) + QObject::tr(". Nothing was taken.");
    }
    std::vector<Edit> edits;
    for (Entry entry : entries) {
        if (entry.by.empty()) // a table that names its authors keeps them
            entry.by = open.worker();
        if (entry.at.empty())
            entry.at = OpenBuild::now();
        edits.push_back(AddEntry { std::move(entry) });
    }
    if (const auto ok = open.editAll(name, std::move(edits)); !ok)
        return QObject::tr("%1. Nothing was taken.").arg(qs(ok.error().message));
    return {};
}

} // namespace mildpath
