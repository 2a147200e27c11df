// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "report/buildsheet.h"

#include <QString>

namespace mildpath {

/// What is in the printer where the user lives: Letter in North America and some countries more.
Paper usualPaper();

/// Writes a build sheet as PDF: pictures as vectors, rows whole, heads of tables repeated on every
/// page. Errors: place = path; nothing half written.
Result<void> writeBuildSheetPdf(const BuildSheet &sheet, Paper paper, const QString &path);

/// By the ending of the path: .html, or else PDF.
Result<void> writeSheetTo(const BuildSheet &sheet, Paper paper, const QString &path);
/// The same of the build sheet.
Result<void> writeBuildSheet(const Build &build, const Assessment &assessment,
                             const std::string &date, Paper paper, const QString &path);

} // namespace mildpath
