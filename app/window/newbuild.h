// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/engineplan.h"

#include <QDialog>

class QCheckBox;
class QComboBox;
class QDialogButtonBox;
class QFormLayout;
class QLabel;

namespace mildpath {

class QuantityField;

/// The engine in a builder's words; what comes of it is said before it is made.
class NewBuildDialog : public QDialog
{
    Q_OBJECT
public:
    explicit NewBuildDialog(QWidget *parent = nullptr);
    /// As described; valid once accepted.
    const Build &build() const { return m_build; }
    EnginePlan plan() const;

private:
    QComboBox *choice(QFormLayout *form, const QString &name, const QString &label,
                      const QList<QPair<QString, QString>> &options);
    QCheckBox *tick(QFormLayout *form, const QString &name, const QString &label);
    void layoutChanged();
    /// The mains such a crank may have; what was chosen stays where it may.
    void offerMains();
    void work();

    QComboBox *m_layout, *m_cylinders, *m_mains, *m_pump, *m_block, *m_caps, *m_gear, *m_order,
        *m_overhead, *m_oil;
    QComboBox *m_relief, *m_turboFeed, *m_phaserFeed, *m_idlers, *m_returns;
    QCheckBox *m_solid, *m_hollow, *m_dry, *m_oldPort, *m_remote, *m_cooler, *m_jets, *m_squirt,
        *m_tensioner, *m_chainJet, *m_bushes;
    QCheckBox *m_balance = nullptr; ///< the last one made
    QuantityField *m_bore, *m_stroke, *m_idle, *m_most;
    QLabel *m_says;
    QDialogButtonBox *m_buttons;
    Build m_build;
};

} // namespace mildpath
