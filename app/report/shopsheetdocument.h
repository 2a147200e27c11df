// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/shopsheet.h"

#include <QTextDocument>

#include <memory>

namespace mildpath {

struct Assessment;

/// The machine-shop sheet as a document for screen, printer and PDF; its drawing of the passages is
/// drawn as vectors wherever it goes. Always ink on white paper, whatever the theme.
std::unique_ptr<QTextDocument> shopSheetDocument(const Build &build, const Assessment &assessment,
                                                 const std::string &date);

/// Writes it as PDF, A4. Errors: place = path; nothing half written.
Result<void> writeShopSheet(const Build &build, const Assessment &assessment,
                            const std::string &date, const QString &path);

} // namespace mildpath
