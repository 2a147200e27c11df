// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "study/room.h"

#include <QObject>
#include <QThreadPool>
#include <QtConcurrentRun>

#include <memory>

namespace mildpath {

/// One question at a time, answered off the interface thread. A newer question, or giving up,
/// cancels the one under way and makes its answer void.
class Background : public QObject
{
    Q_OBJECT
public:
    explicit Background(QObject *parent = nullptr)
        : QObject(parent)
    {
        m_pool.setMaxThreadCount(1);
    }
    ~Background() override
    {
        giveUp();
        m_pool.waitForDone();
    }

    /// @param work  called as work(Progress &) on another thread; whatever it needs it must hold as
    ///              copies
    /// @param done  called here with what work returned, unless something newer was asked
    template <class Work, class Done> void ask(Work work, Done done)
    {
        giveUp();
        const auto progress = m_progress = std::make_shared<Progress>();
        static_cast<void>(QtConcurrent::run(
            &m_pool, [this, progress, work = std::move(work), done = std::move(done)]() mutable {
                auto answer = work(*progress);
                // Always by way of the event loop: a quick answer must not come while it is asked
                // for.
                QMetaObject::invokeMethod(
                    this,
                    [this, progress, done = std::move(done), answer = std::move(answer)]() mutable {
                        if (progress != m_progress)
                            return;
                        m_progress.reset();
                        done(std::move(answer));
                    },
                    Qt::QueuedConnection);
            }));
    }

    void giveUp()
    {
        if (m_progress)
            m_progress->cancel = true;
        m_progress.reset();
    }

    /// Of the question under way; null when there is none.
    const Progress *progress() const { return m_progress.get(); }

private:
    std::shared_ptr<Progress> m_progress;
    QThreadPool m_pool;
};

} // namespace mildpath
