// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "open/openbuild.h"

#include <QPixmap>
#include <QWidget>

#include <map>

namespace mildpath {

/// Takes a picture file into the folder beside the open build, named by its content.
/// @return its name there. Errors: the build is in no file yet, the file is no picture or cannot be
///         read, the folder cannot be written.
Result<std::string> takePhoto(const OpenBuild &open, const QString &file);
/// The same of any file, with the ending it is to have.
Result<std::string> takeFile(const OpenBuild &open, const QString &file, const QString &ending);

/// Small pictures of an entry's photos in a row; one that is missing says so, one whose content no
/// longer fits its name too. A click opens it.
class PhotoStrip : public QWidget
{
    Q_OBJECT
public:
    explicit PhotoStrip(const OpenBuild &open, QWidget *parent = nullptr);
    void setPhotos(const std::vector<std::string> &photos);
    enum class State { There, Missing, Changed };
    State stateOf(const std::string &photo) const;

protected:
    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;

private:
    struct Shot
    {
        std::string name;
        State state;
        QPixmap picture;
    };
    QString pathOf(const std::string &photo) const;

    const OpenBuild &m_open;
    std::vector<Shot> m_shots;
};

} // namespace mildpath
