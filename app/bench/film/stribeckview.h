// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "plot/chartview.h"
#include "study/contacts.h"

namespace mildpath {

/// Where each pair of surfaces runs on the curve of friction against film.
class StribeckView : public ChartView
{
    Q_OBJECT
public:
    explicit StribeckView(QWidget *parent = nullptr);
    void setContacts(std::vector<Contact> contacts);
    const std::vector<Contact> &contacts() const { return m_contacts; }

protected:
    void paintOver(QPainter &p, LabelSpace &space) override;

private:
    QPointF placeOf(const Contact &contact) const;

    std::vector<Contact> m_contacts; ///< by λ
};

} // namespace mildpath
