// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/progress.h"

#include <QObject>
#include <QString>
#include <QThreadPool>
#include <QTimer>

#include <functional>
#include <map>
#include <memory>
#include <string>
#include <string_view>
#include <typeindex>
#include <utility>

namespace mildpath {

struct Assessment;
struct Build;

/// What a question is about: a document and what follows from it. An answer may point into them.
struct AskedAbout
{
    std::shared_ptr<const Build> build;
    std::shared_ptr<const Assessment> assessment;
};

/// An answer with what it is about.
template <class T> struct Answered
{
    AskedAbout about;
    T answer;
};

/// Something asked of the open document. Questions are listed in open/questions.h.
/// T: the answer. Of one topic only the newest question is under way.
template <class T> struct Question
{
    std::string topic;
    std::string settings; ///< what the answer depends on beside the document
    /// Runs on another thread; what it gets stays as it is.
    std::function<T(const AskedAbout &, Progress &)> work;
};

/// Answers to questions about the open document: each worked out once, off the interface thread,
/// for whoever asks. They stand as long as the document does; what is under way for an older
/// document, or an older question of the same topic, is cancelled.
class Answers : public QObject
{
    Q_OBJECT
public:
    explicit Answers(QObject *parent = nullptr);
    ~Answers() override;

    /// The answer, if it is there.
    template <class T> std::shared_ptr<const Answered<T>> find(const Question<T> &q) const
    {
        return std::static_pointer_cast<const Answered<T>>(found(q.topic, q.settings, typeid(T)));
    }
    /// The answer, or null: then it is worked out, and answered() follows.
    template <class T> std::shared_ptr<const Answered<T>> ask(const Question<T> &q)
    {
        auto there = find(q);
        if (!there)
            want(q.topic, q.settings, typeid(T), workOf(q));
        return there;
    }
    /// The same; until it is there, the last answer of the topic to this document or those before
    /// it (null: none yet).
    template <class T> std::shared_ptr<const Answered<T>> latest(const Question<T> &q)
    {
        if (auto there = ask(q))
            return there;
        return std::static_pointer_cast<const Answered<T>>(last(q.topic));
    }
    /// The answer, worked out on the spot where it is not there: for what takes less than a frame.
    template <class T> std::shared_ptr<const Answered<T>> now(const Question<T> &q)
    {
        if (auto there = find(q))
            return there;
        Progress nobodyLooks;
        keep(q.topic, q.settings, typeid(T), workOf(q)(nobodyLooks));
        return find(q);
    }
    /// The latest answer, worked out on the spot only where there is none at all to show meanwhile.
    template <class T> std::shared_ptr<const Answered<T>> latestOrNow(const Question<T> &q)
    {
        auto there = latest(q);
        if (there)
            return there;
        giveUp(q.topic);
        return now(q);
    }

    /// How far the question of a topic is; null: nothing of it is under way.
    const Progress *progress(std::string_view topic) const;
    /// The question of a topic is not wanted any more.
    void giveUp(std::string_view topic);
    /// Whether anything is under way or about to be.
    bool isBusy() const;

    /// From now on everything is about this.
    /// @param another  it is another document: what was answered about the old one is forgotten
    void setAbout(AskedAbout about, bool another);

Q_SIGNALS:
    void answered(const QString &topic);

private:
    using Value = std::shared_ptr<const void>;
    using Work = std::function<Value(Progress &)>;
    struct Topic
    {
        std::type_index type;
        std::map<std::string, Value> answers; ///< by settings, about the document as it is
        Value last; ///< the newest there was
        std::string settings; ///< of what is waiting or under way
        Work waiting; ///< not begun yet
        std::shared_ptr<Progress> progress; ///< null: neither waiting nor under way
    };

    template <class T> Work workOf(const Question<T> &q) const
    {
        return [about = m_about, work = q.work](Progress &progress) -> Value {
            return std::make_shared<const Answered<T>>(
                Answered<T> { about, work(about, progress) });
        };
    }
    Value found(const std::string &topic, const std::string &settings, std::type_index type) const;
    Value last(const std::string &topic) const;
    void want(const std::string &topic, const std::string &settings, std::type_index type,
              Work work);
    void keep(const std::string &topic, const std::string &settings, std::type_index type,
              Value answer);
    void begin(const std::string &name, Topic &topic);

    AskedAbout m_about;
    std::map<std::string, Topic, std::less<>> m_topics;
    QThreadPool m_pool;
    QTimer m_soon; ///< keys that follow each other quickly are one question
};

} // namespace mildpath
