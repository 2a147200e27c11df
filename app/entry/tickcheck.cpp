// SPDX-License-Identifier: GPL-3.0-or-later
#include "entry/tickcheck.h"

namespace mildpath {

Result<void> tickCheck(OpenBuild &open, const std::string &stop, const TickKind &check, bool so)
{
    Proof p;
    p.stop = stop;
    p.aspect = check.aspect;
    p.check = check.id;
    p.verdict = so ? "proven" : "look_again";
    if (!so)
        p.how = "taken back: " + std::string(check.text);
    p.by = open.worker();
    p.at = OpenBuild::now();
    return open.edit(AddProof { p });
}

} // namespace mildpath
