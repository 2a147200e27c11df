// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/page.h"

#include <QWidget>

class QCheckBox;
class QLabel;
class QPushButton;

namespace mildpath {

/// The bolts of a card seen from above, numbered in the order they are tightened; each shows the
/// stage it has reached. A click ticks a bolt on by one stage.
class BoltPicture : public QWidget
{
    Q_OBJECT
public:
    explicit BoltPicture(OpenBuild &open, QWidget *parent = nullptr);
    void setCard(const std::string &id);
    QPointF placeOf(int fastener) const;

Q_SIGNALS:
    void clicked(int fastener);

protected:
    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;

private:
    const TorqueCard *card() const;
    QPointF at(const Fastener &f) const;

    OpenBuild &m_open;
    std::string m_card;
};

/// How caps are tightened, bolt by bolt and stage by stage, and loosened in reverse.
class TorquePage : public Page
{
    Q_OBJECT
public:
    explicit TorquePage(OpenBuild &open, QWidget *parent = nullptr);
    std::vector<PageTab> tabs() const override { return { { "torque", tr("Torque card") } }; }
    QString title() const override { return tr("Torque card"); }
    void refresh() override;
    PanelContent panel() override;

protected:
    void keyPressEvent(QKeyEvent *event) override;

private:
    const TorqueCard *card() const;
    void tickNext();
    void loosenNext();
    void loosenAll();
    void tick(int fastener, int stage);
    void showCards();
    // What is on the card (torquecard.cpp).
    Result<void> put(TorqueCard changed);
    void cardPanel(PanelContent &out);
    void wordsPanel(const TorqueCard &c, PanelContent &out);
    void choicesPanel(const TorqueCard &c, PanelContent &out);
    void addOuter();
    void orderBy(int fastener);

    BoltPicture *m_picture;
    QWidget *m_cardBar;
    QLabel *m_next, *m_about, *m_message;
    QPushButton *m_tick, *m_loosen, *m_loosenAll;
    QCheckBox *m_newBolts;
    std::vector<QPushButton *> m_cards;
    std::string m_card;
    std::optional<std::vector<size_t>> m_ordering; ///< bolts clicked so far for a new order
};

} // namespace mildpath
