#include "core/base/superblock.h"

#include <blkid/blkid.h>

#include <memory>

namespace sober {

std::string superblockValue(const BytePath& device, const char* name) {
    const std::unique_ptr<blkid_struct_probe, void (*)(blkid_probe)> probe(
        blkid_new_probe_from_filename(device.c_str()), [](blkid_probe opened) {
            if (opened != nullptr) {
                blkid_free_probe(opened);
            }
        });
    const char* value = nullptr;
    const bool isRead = probe && blkid_do_safeprobe(probe.get()) == 0 &&
                        blkid_probe_lookup_value(probe.get(), name, &value, nullptr) == 0 && value != nullptr;
    return isRead ? value : std::string();
}

} // namespace sober
