// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/edit.h"
#include "open/background.h"

#include <QLabel>

#include <optional>
#include <vector>

namespace mildpath {

class OpenBuild;

/// Says, before something is recorded, how many checks that are proven would be open again.
class FallBackNote : public QLabel
{
    Q_OBJECT
public:
    /// @param name  of the object: several pages of a bench have one
    FallBackNote(OpenBuild &open, const QString &name, QWidget *parent);
    /// @param edits  what is about to be recorded; none: nothing is said
    void propose(std::vector<Edit> edits);
    bool busy() const { return m_background.progress() != nullptr; }

private:
    OpenBuild &m_open;
    Background m_background;
    std::vector<Edit> m_edits; ///< that are proposed
    std::shared_ptr<const Build> m_of; ///< the build they were worked out for
};

} // namespace mildpath
