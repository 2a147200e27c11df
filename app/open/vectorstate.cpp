// SPDX-License-Identifier: GPL-3.0-or-later
#include "open/vectorstate.h"

namespace mildpath {

#if defined(__x86_64__)
namespace {
__attribute__((target("avx"))) void zeroUpperHalves()
{
    __builtin_ia32_vzeroupper();
}
} // namespace

void clearVectorState()
{
    static const bool hasThem = __builtin_cpu_supports("avx");
    if (hasThem)
        zeroUpperHalves();
}
#else
void clearVectorState() { }
#endif

} // namespace mildpath
