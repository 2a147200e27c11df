// SPDX-License-Identifier: GPL-3.0-or-later
#include "open/answers.h"

#include <QThread>
#include <QtConcurrentRun>

#include <algorithm>

namespace mildpath {
namespace {

/// Work that cannot be stopped on the way must not begin while somebody types.
constexpr int restsFor_ms = 120;
/// Answers kept of one topic: enough for a slider that goes to and fro.
constexpr size_t mostOfATopic = 16;

void cancel(std::shared_ptr<Progress> &progress)
{
    if (progress)
        progress->cancel = true;
    progress.reset();
}

} // namespace

Answers::Answers(QObject *parent)
    : QObject(parent)
{
    // One core is left to the window.
    m_pool.setMaxThreadCount(std::max(1, QThread::idealThreadCount() - 1));
    m_soon.setSingleShot(true);
    m_soon.setInterval(restsFor_ms);
    connect(&m_soon, &QTimer::timeout, this, [this] {
        for (auto &[name, topic] : m_topics)
            if (topic.waiting)
                begin(name, topic);
    });
}

Answers::~Answers()
{
    for (auto &[name, topic] : m_topics)
        cancel(topic.progress);
    m_pool.waitForDone();
}

void Answers::setAbout(AskedAbout about, bool another)
{
    m_about = std::move(about);
    for (auto &[name, topic] : m_topics) {
        cancel(topic.progress);
        topic.waiting = nullptr;
        topic.answers.clear();
        if (another)
            topic.last.reset();
    }
}

Answers::Value Answers::found(const std::string &topic, const std::string &settings,
                              std::type_index type) const
{
    const auto t = m_topics.find(topic);
    if (t == m_topics.end())
        return nullptr;
    if (t->second.type != type)
        qFatal("two kinds of answer to \"%s\"", topic.c_str());
    const auto a = t->second.answers.find(settings);
    return a == t->second.answers.end() ? nullptr : a->second;
}

Answers::Value Answers::last(const std::string &topic) const
{
    const auto t = m_topics.find(topic);
    return t == m_topics.end() ? nullptr : t->second.last;
}

void Answers::want(const std::string &name, const std::string &settings, std::type_index type,
                   Work work)
{
    Topic &topic = m_topics.try_emplace(name, Topic { type, {}, {}, {}, {}, {} }).first->second;
    if (topic.progress && topic.settings == settings)
        return;
    cancel(topic.progress);
    topic.settings = settings;
    topic.waiting = std::move(work);
    topic.progress = std::make_shared<Progress>();
    m_soon.start();
}

void Answers::keep(const std::string &name, const std::string &settings, std::type_index type,
                   Value answer)
{
    Topic &topic = m_topics.try_emplace(name, Topic { type, {}, {}, {}, {}, {} }).first->second;
    if (topic.answers.size() >= mostOfATopic)
        topic.answers.clear();
    topic.answers[settings] = answer;
    topic.last = std::move(answer);
}

void Answers::begin(const std::string &name, Topic &topic)
{
    static_cast<void>(QtConcurrent::run(
        &m_pool,
        [this, progress = topic.progress, name, settings = topic.settings, type = topic.type,
         work = std::exchange(topic.waiting, nullptr)] {
            if (progress->cancel)
                return;
            Value answer = work(*progress);
            QMetaObject::invokeMethod(
                this,
                [this, progress, name, settings, type, answer = std::move(answer)] {
                    Topic &now = m_topics.at(name);
                    if (progress != now.progress) // something newer was asked, or given up
                        return;
                    now.progress.reset();
                    keep(name, settings, type, answer);
                    Q_EMIT answered(QString::fromStdString(name));
                },
                Qt::QueuedConnection);
        }));
}

const Progress *Answers::progress(std::string_view name) const
{
    const auto t = m_topics.find(name);
    return t == m_topics.end() ? nullptr : t->second.progress.get();
}

void Answers::giveUp(std::string_view name)
{
    if (const auto t = m_topics.find(name); t != m_topics.end()) {
        cancel(t->second.progress);
        t->second.waiting = nullptr;
    }
}

bool Answers::isBusy() const
{
    return std::any_of(m_topics.begin(), m_topics.end(),
                       [](const auto &topic) { return topic.second.progress != nullptr; });
}

} // namespace mildpath
