// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "open/background.h"
#include "shelf/compare.h"
#include "shell/page.h"

#include <QTimer>
#include <QWidget>

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;

namespace mildpath {

class RowList;

/// One quantity over builds, the oldest first: a dot each, with its range.
class ShelfView : public QWidget
{
    Q_OBJECT
public:
    explicit ShelfView(QWidget *parent = nullptr);
    void show(std::vector<ShelfRow> rows, const ShelfQuantity &quantity, const QString &chosen);

Q_SIGNALS:
    void picked(const QString &path);

protected:
    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;

private:
    QRectF area() const;
    std::vector<ShelfRow> m_rows; ///< with a value, by their last entry
    ShelfQuantity m_quantity;
    QString m_chosen;
};

/// A folder of builds: search, compare, open.
class ShelfPage : public Page
{
    Q_OBJECT
public:
    ShelfPage(OpenBuild &open, QWidget *parent);
    std::vector<PageTab> tabs() const override { return { { "shelf", tr("Compare") } }; }
    QString title() const override { return tr("Compare builds"); }
    void refresh() override;
    PanelContent panel() override;
    QString about() const override;
    void takeFocus() override;
    /// Opens a folder as the shelf.
    void setFolder(const QString &folder);
    const std::vector<ShelfEntry> &entries() const { return m_entries; }
    bool busy() const { return m_opening || m_comparing; }
    /// @return why it was not written; empty: it was
    QString exportTable(const QString &path) const;

private:
    void search();
    void compare();
    void openChosen();
    void fillList();
    void pick(const QString &path);
    const ShelfQuantity &quantity() const;
    const ShelfEntry *chosen() const;

    Background m_covers, m_work;
    QString m_folder, m_chosen;
    std::vector<ShelfEntry> m_entries;
    std::vector<const ShelfEntry *> m_found;
    std::vector<ShelfQuantity> m_quantities;
    std::vector<ShelfRow> m_rows; ///< of the last comparison
    bool m_opening = false, m_comparing = false;
    bool m_sameEngine = false;
    QLineEdit *m_search;
    QComboBox *m_quantity;
    QPushButton *m_cancel;
    QLabel *m_said;
    ShelfView *m_view;
    RowList *m_list;
    QTimer m_progress;
};

} // namespace mildpath
