// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/recheck.h"
#include "shell/page.h"
#include "start/modified.h"

#include <QWidget>

class QComboBox;
class QLabel;
class QPainter;

namespace mildpath {

class ChartView;
class EntryForm;
struct Axis;

/// Sizes before and after a run on one axis, with their limits.
class RecheckView : public QWidget
{
    Q_OBJECT
public:
    explicit RecheckView(QWidget *parent = nullptr);
    void show(const Recheck &recheck, const QString &stop);
    static constexpr int rowHeight = 26;

Q_SIGNALS:
    void picked(int row);

protected:
    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;

private:
    void paintRow(QPainter &p, const Rechecked &r, const Axis &axis, double y) const;

    Recheck m_recheck;
    QString m_stop;
};

/// The engine opened again, and passages made otherwise.
class RecheckPage : public Page
{
    Q_OBJECT
public:
    RecheckPage(OpenBuild &open, QWidget *parent);
    std::vector<PageTab> tabs() const override { return { { "recheck", tr("Re-inspection") } }; }
    QString title() const override { return tr("Re-inspection"); }
    void refresh() override;
    PanelContent panel() override;
    QString about() const override;

private:
    void makeChange(QWidget *card);
    void noteOpening();
    void fillElements();
    void fillKeys();
    void compare();
    void take(std::shared_ptr<const Answered<Result<Modified>>> answer);
    void showModified();
    void keptPanel(PanelContent &out);
    void keep();
    void make();
    const Opening *chosen() const;

    Recheck m_recheck;
    std::string m_opening; ///< id
    QComboBox *m_openings;
    EntryForm *m_form, *m_change;
    RecheckView *m_view;
    ChartView *m_chart;
    QLabel *m_said;
    class FallBackNote *m_fallBack;
    std::shared_ptr<const Answered<Result<Modified>>> m_answer; ///< shown
    const Modified *m_modified = nullptr; ///< of it
    std::vector<ElementChange> m_changes;
    std::string m_shape;
    QString m_stop; ///< whose element was offered last
};

} // namespace mildpath
