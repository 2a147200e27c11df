// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "study/contacts.h"

#include <QWidget>

namespace mildpath {

/// Where each pair of surfaces runs on the curve of friction against film.
class StribeckView : public QWidget
{
public:
    explicit StribeckView(QWidget *parent = nullptr);
    void setContacts(std::vector<Contact> contacts);
    const std::vector<Contact> &contacts() const { return m_contacts; }

protected:
    void paintEvent(QPaintEvent *) override;

private:
    double xOf(double lambda) const;
    double yOf(double friction) const;

    std::vector<Contact> m_contacts;
    QRectF m_area;
};

} // namespace mildpath
