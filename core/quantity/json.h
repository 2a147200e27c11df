// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// For files that build or read JSON; others get by with quantity/extrakeys.h, which compiles fast.

#include "quantity/extrakeys.h"

#include <nlohmann/json.hpp>
