// SPDX-License-Identifier: GPL-3.0-or-later
#include "entry/photostrip.h"

#include "paint/text.h"
#include "storage/photos.h"

#include <QCryptographicHash>
#include <QDesktopServices>
#include <QFile>
#include <QFileInfo>
#include <QImageReader>
#include <QMouseEvent>
#include <QPainter>
#include <QUrl>

namespace mildpath {
namespace {

constexpr int shotWidth = 72, shotHeight = 54, gap = 8;

QByteArray hashOf(const QString &path)
{
    QFile file(path);
    QCryptographicHash hash(QCryptographicHash::Sha256);
    return file.open(QIODevice::ReadOnly) && hash.addData(&file) ? hash.result().toHex()
                                                                 : QByteArray();
}

} // namespace

Result<std::string> takePhoto(const OpenBuild &open, const QString &file)
{
    QImageReader reader(file);
    if (!reader.canRead() && !open.path().isEmpty())
        return fail(file.toStdString(), "is not a picture this program can read");
    return takeFile(open, file, QString::fromLatin1(reader.format()));
}

Result<std::string> takeFile(const OpenBuild &open, const QString &file, const QString &ending)
{
    if (open.path().isEmpty())
        return fail("photo", "save the build first: photos lie in a folder beside it");
    const QByteArray hash = hashOf(file);
    if (hash.isEmpty())
        return fail(file.toStdString(), "cannot be read");
    const QString name = QString::fromLatin1(hash) + u'.' + ending;
    if (auto ok = keepPhoto(file.toStdString(), open.path().toStdString(), name.toStdString()); !ok)
        return tl::unexpected(ok.error());
    return name.toStdString();
}

PhotoStrip::PhotoStrip(const OpenBuild &open, QWidget *parent)
    : QWidget(parent)
    , m_open(open)
{
    setObjectName(QStringLiteral("photoStrip"));
    setFixedHeight(shotHeight + 4);
}

QString PhotoStrip::pathOf(const std::string &photo) const
{
    return m_open.besideFile().isEmpty()
        ? QString()
        : QString::fromStdString((photoFolder(m_open.besideFile().toStdString()) / photo).string());
}

PhotoStrip::State PhotoStrip::stateOf(const std::string &photo) const
{
    const QString path = pathOf(photo);
    if (path.isEmpty() || !QFileInfo(path).isFile())
        return State::Missing;
    return hashOf(path) == QFileInfo(qs(photo)).completeBaseName().toLatin1() ? State::There
                                                                              : State::Changed;
}

void PhotoStrip::setPhotos(const std::vector<std::string> &photos)
{
    std::vector<Shot> shots;
    QStringList spoken;
    for (const std::string &name : photos) {
        Shot shot { name, stateOf(name), {} };
        if (shot.state != State::Missing) {
            // Read small: a camera's pictures are large.
            QImageReader reader(pathOf(name));
            QSize size = reader.size();
            size.scale(shotWidth * 2, shotHeight * 2, Qt::KeepAspectRatio);
            reader.setScaledSize(size);
            shot.picture = QPixmap::fromImage(reader.read());
        }
        spoken << (shot.state == State::There ? tr("photo")
                       : shot.state == State::Missing
                       ? tr("photo missing")
                       : tr("photo changed since it was taken down"));
        shots.push_back(std::move(shot));
    }
    m_shots = std::move(shots);
    setAccessibleName(spoken.join(QStringLiteral(", ")));
    setVisible(!m_shots.empty());
    update();
}

void PhotoStrip::paintEvent(QPaintEvent *)
{
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.setRenderHint(QPainter::SmoothPixmapTransform);
    const Theme &t = Theme::current();
    double x = 1;
    for (const Shot &s : m_shots) {
        const QRectF frame(x, 1, shotWidth, shotHeight);
        p.setPen(QPen(s.state == State::There ? t.line : t.lookAgain, 1));
        p.setBrush(t.panel);
        p.drawRect(frame);
        if (!s.picture.isNull()) {
            QSizeF size = s.picture.size();
            size.scale(frame.size() - QSizeF(4, 4), Qt::KeepAspectRatio);
            QRectF in(QPointF(), size);
            in.moveCenter(frame.center());
            p.drawPixmap(in, s.picture, QRectF(s.picture.rect()));
        }
        if (s.state != State::There)
            drawLine(p, frame.adjusted(3, 0, -3, 0), Qt::AlignCenter,
                     s.state == State::Missing ? tr("missing") : tr("changed"),
                     textFont(TextSize::Small, true), t.lookAgain);
        x += shotWidth + gap;
    }
}

void PhotoStrip::mousePressEvent(QMouseEvent *event)
{
    const auto i = static_cast<size_t>(std::max(0.0, event->position().x()) / (shotWidth + gap));
    if (i < m_shots.size() && m_shots[i].state != State::Missing)
        QDesktopServices::openUrl(QUrl::fromLocalFile(pathOf(m_shots[i].name)));
}

} // namespace mildpath
