// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "begin/knownbuilds.h"
#include "open/background.h"
#include "storage/journal.h"

#include <QWidget>

#include <vector>

class QLabel;
class QPushButton;
class QVBoxLayout;

namespace mildpath {

class EngineTiles;

/// What stands in the window while no build is open: go on with the last one, take another, begin a
/// new one, or practise on a copy.
class BeginPage : public QWidget
{
    Q_OBJECT
public:
    explicit BeginPage(QWidget *parent);
    /// @param recent      paths, the last one first
    /// @param recoveries  edits a crash kept, each at its build
    void show(const QStringList &recent, std::vector<Recovery> recoveries);
    EngineTiles &tiles() { return *m_tiles; }
    /// Whether the last build is being read.
    bool busy() const { return m_first.progress() || m_othersAsked.progress(); }

Q_SIGNALS:
    void openAsked(const QString &path);
    void fileAsked(); ///< by a dialog
    void templateAsked(const QString &name);
    void describeAsked();
    void practiseAsked();
    void restoreAsked(const mildpath::Recovery &recovery);
    void leaveAsked(const mildpath::Recovery &recovery);

protected:
    void keyPressEvent(QKeyEvent *event) override;

private:
    QWidget *goOnCard();
    QWidget *othersCard();
    QWidget *practiseCard();
    QWidget *newSide();
    QWidget *questionsCard();
    void showFirst(KnownBuild build);
    void showOthers(const std::vector<KnownBuild> &builds);
    void addUnsaved(const Recovery &recovery, QVBoxLayout *to);
    void addOther(const KnownBuild &build);
    const Recovery *unsavedOf(const QString &path) const;

    class RoutePicture *m_picture;
    QLabel *m_name, *m_engine, *m_saved, *m_holds, *m_can, *m_next, *m_about;
    QPushButton *m_goOn;
    QWidget *m_goOnCard, *m_others;
    QVBoxLayout *m_rows, *m_firstUnsaved;
    EngineTiles *m_tiles;
    QString m_path; ///< of the last build
    std::vector<Recovery> m_recoveries;
    Background m_first, m_othersAsked;
};

} // namespace mildpath
