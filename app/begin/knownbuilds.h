// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/rules.h"
#include "document/document.h"

#include <QString>

#include <map>
#include <memory>
#include <optional>
#include <string>

namespace mildpath {

/// A build that was worked on before, as the first page tells of it.
struct KnownBuild
{
    QString path;
    QString name, engine;
    QString saved; ///< when the file was written
    QString trouble; ///< why it cannot be opened; empty: it can
    QString older; ///< a copy kept beside a damaged one; empty: none
    std::optional<Mark> mark {}; ///< the worst of its checks; none: nobody looked
    QString holds; ///< "2 hold the start: Main 4, Rear plug"
    QString can; ///< "17 checks can be done now"
    QString next; ///< what is next; empty: nothing is open
    std::shared_ptr<const Build> build {};
    std::map<std::string, Mark> marks {}; ///< by stop
};

/// Reads and judges a build's file: some tenths of a second, for another thread.
/// @param whole  with what is next, and the marks of its stops
KnownBuild knownBuild(const QString &path, bool whole);

} // namespace mildpath
