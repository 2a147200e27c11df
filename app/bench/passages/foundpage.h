// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/page.h"

#include <QWidget>

class QComboBox;
class QGridLayout;
class QLabel;
class QLineEdit;
class QVBoxLayout;

namespace mildpath {

class FindWay;
class PhotoStrip;
class RowList;

/// What lay where only oil should be, with what it may be and why; and what the parts showed when
/// the engine was taken down.
class FoundPage : public Page
{
    Q_OBJECT
public:
    explicit FoundPage(OpenBuild &open, QWidget *parent = nullptr);
    std::vector<PageTab> tabs() const override { return { { "found", tr("Debris & wear") } }; }
    QString title() const override { return tr("Debris & wear"); }
    void refresh() override;
    PanelContent panel() override;
    /// Adds a picture to the chosen find. @return why not; empty: done
    QString addPhoto(const QString &file);

private:
    void makeFinds(QWidget *card);
    void makeEntry(QWidget *card, QVBoxLayout *column);
    void makeSettling(QWidget *card, QVBoxLayout *column);
    void makeSigns(QWidget *card);
    void fillSigns();
    void recordFind();
    void settleFind();
    void pickPhoto();
    void setSign(const std::string &stop, const std::string &sign, int index);
    void say(const QString &refusal);
    const DebrisFind *chosen() const;

    QComboBox *m_where, *m_size, *m_colour, *m_hardness, *m_magnetic;
    QLineEdit *m_place, *m_settled;
    QLabel *m_guess, *m_refusal;
    RowList *m_rows;
    FindWay *m_way;
    PhotoStrip *m_photos;
    QGridLayout *m_signs;
    std::vector<std::string> m_ids; ///< of the finds in the rows
    std::string m_find;
    struct SignBox
    {
        QComboBox *box;
        QLabel *text;
        std::string stop, sign;
    };
    std::vector<SignBox> m_boxes;
    std::string m_shape; ///< of the engine the boxes were made for
};

} // namespace mildpath
