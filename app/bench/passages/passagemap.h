// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "open/openbuild.h"
#include "paint/passagepainter.h"

#include <QWidget>

#include <optional>

namespace mildpath {

/// The drillings of a part with plugs, pockets and the pull in hand; chosen by click or arrow keys.
class PassageMap : public QWidget
{
    Q_OBJECT
public:
    explicit PassageMap(OpenBuild &open, QWidget *parent = nullptr);

    void setPart(const std::string &part);
    const std::string &part() const { return m_part; }
    void select(const std::string &passage, const std::string &plug = {});
    /// A step of the plan to draw; null: none. The plan must outlive the next call.
    void showStep(const CleaningStep *step, int number);
    void refresh();
    /// Where a passage is drawn, for tests.
    QPointF middleOf(const std::string &passage);
    QPointF placeOf(const std::string &plug);

Q_SIGNALS:
    void passageChosen(const QString &id);
    void plugChosen(const QString &id);

protected:
    void paintEvent(QPaintEvent *) override;
    void resizeEvent(QResizeEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;
    bool event(QEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;

private:
    bool takeMetal();
    void layOut();
    int passageAt(QPointF where) const;
    int plugAt(QPointF where) const;
    QPointF plugPlace(int plug) const;

    OpenBuild &m_open;
    std::string m_part = "block";
    std::string m_passage, m_plug;
    const CleaningStep *m_step = nullptr;
    int m_stepNumber = 0;
    std::pair<std::vector<Passage>, std::vector<Plug>> m_metal; ///< what is drawn
    std::optional<PassageNetwork> m_network; ///< of it
    std::vector<bool> m_pockets; ///< of it
    PassageLayout m_layout;
};

} // namespace mildpath
