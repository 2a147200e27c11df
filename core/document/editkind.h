// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/edit.h"

#include <span>

namespace mildpath {

// How an edit is told to the program: once, beside what it does. See CONTRIBUTING.md.

/// A kind of edit: its word and members, what it makes of a document, what the Edit menu says.
struct EditKind
{
    const RecordType *record; ///< its name is the edit's word in a journal
    std::shared_ptr<void> (*make)();
    bool (*same)(const void *a, const void *b);
    /// The document is looked at as a whole afterwards, by applyEdit().
    Result<Build> (*apply)(const Build &build, const void *edit);
    Phrase (*describe)(const Build &build, const void *edit);
    /// Where the members alone do not say it: reads and writes the line as a whole.
    void (*read)(void *edit, const Json &json, const std::string &place, std::vector<Error> &errors)
        = nullptr;
    Json (*write)(const void *edit) = nullptr;
};

/// Both are called with the document and the edit, and have no captures.
template <class E, class Apply, class Say> EditKind kindOf(Apply, Say)
{
    return { &recordType<E>(), []() -> std::shared_ptr<void> { return std::make_shared<E>(); },
             [](const void *a, const void *b) {
                 return *static_cast<const E *>(a) == *static_cast<const E *>(b);
             },
             [](const Build &build, const void *edit) -> Result<Build> {
                 return Apply {}(build, *static_cast<const E *>(edit));
             },
             [](const Build &build, const void *edit) -> Phrase {
                 return Say {}(build, *static_cast<const E *>(edit));
             } };
}
inline EditKind asAWhole(EditKind kind,
                         void (*read)(void *, const Json &, const std::string &,
                                      std::vector<Error> &),
                         Json (*write)(const void *))
{
    kind.read = read;
    kind.write = write;
    return kind;
}

// All kinds, by subject; each list stands in the file of its kinds.
std::span<const EditKind *const> readingEdits();
std::span<const EditKind *const> torqueEdits();
std::span<const EditKind *const> valueEdits();
std::span<const EditKind *const> engineEdits();
std::span<const EditKind *const> passageEdits();
std::span<const EditKind *const> lineEdits();
std::span<const EditKind *const> sumpEdits();

// What descriptions are made of.

/// The name of a stop; its id where there is none.
std::string stopName(const Build &build, const std::string &id);
/// "bore 86.0 mm"
Phrase withValue(const std::string &name, double value, std::string_view fileUnit);

} // namespace mildpath
