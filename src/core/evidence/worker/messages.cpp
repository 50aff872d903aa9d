#include "core/evidence/worker/messages.h"

#include <sys/socket.h>
#include <sys/uio.h>

#include <array>
#include <cerrno>
#include <cstring>
#include <unistd.h>

namespace sober {
namespace {

constexpr std::uint32_t longestMessage = 1U << 30;
constexpr std::size_t mostFiles = 250; // of 253 that the kernel takes at once

struct Head {
    std::uint32_t length = 0;
    char letter = 0;
};

bool sendAll(int line, const char* at, std::size_t length) {
    while (length > 0) {
        const auto sent = send(line, at, length, MSG_NOSIGNAL);
        if (sent < 0 && errno == EINTR) {
            continue;
        }
        if (sent <= 0) {
            return false;
        }
        at += sent;
        length -= static_cast<std::size_t>(sent);
    }
    return true;
}

bool receiveAll(int line, char* at, std::size_t length) {
    while (length > 0) {
        const auto got = recv(line, at, length, 0);
        if (got < 0 && errno == EINTR) {
            continue;
        }
        if (got <= 0) {
            return false;
        }
        at += got;
        length -= static_cast<std::size_t>(got);
    }
    return true;
}

std::vector<FileHandle> filesIn(msghdr& message) {
    std::vector<FileHandle> files;
    for (auto* part = CMSG_FIRSTHDR(&message); part != nullptr; part = CMSG_NXTHDR(&message, part)) {
        if (part->cmsg_level == SOL_SOCKET && part->cmsg_type == SCM_RIGHTS) {
            const auto count = (part->cmsg_len - CMSG_LEN(0)) / sizeof(int);
            for (std::size_t i = 0; i < count; ++i) {
                int file = -1;
                std::memcpy(&file, CMSG_DATA(part) + i * sizeof(int), sizeof(int));
                files.emplace_back(file);
            }
        }
    }
    return files;
}

} // namespace

bool sendMessage(int line, char letter, std::string_view bytes, std::span<const int> files) {
    Head head{static_cast<std::uint32_t>(bytes.size()), letter};
    iovec part{&head, sizeof head};
    alignas(cmsghdr) std::array<char, CMSG_SPACE(sizeof(int) * mostFiles)> rights{};
    msghdr message{};
    message.msg_iov = &part;
    message.msg_iovlen = 1;
    if (!files.empty() && files.size() <= mostFiles) {
        message.msg_control = rights.data();
        message.msg_controllen = CMSG_SPACE(files.size_bytes());
        auto* about = CMSG_FIRSTHDR(&message);
        about->cmsg_level = SOL_SOCKET;
        about->cmsg_type = SCM_RIGHTS;
        about->cmsg_len = CMSG_LEN(files.size_bytes());
        std::memcpy(CMSG_DATA(about), files.data(), files.size_bytes());
    }
    ssize_t sent = 0;
    do {
        sent = sendmsg(line, &message, MSG_NOSIGNAL);
    } while (sent < 0 && errno == EINTR);
    return sent == static_cast<ssize_t>(sizeof head) && sendAll(line, bytes.data(), bytes.size());
}

std::optional<Message> receiveMessage(int line) {
    Head head;
    iovec part{&head, sizeof head};
    alignas(cmsghdr) std::array<char, CMSG_SPACE(sizeof(int) * mostFiles)> rights{};
    msghdr message{};
    message.msg_iov = &part;
    message.msg_iovlen = 1;
    message.msg_control = rights.data();
    message.msg_controllen = rights.size();
    ssize_t got = 0;
    do {
        got = recvmsg(line, &message, MSG_CMSG_CLOEXEC);
    } while (got < 0 && errno == EINTR);
    if (got <= 0) {
        return std::nullopt;
    }
    Message received;
    received.files = filesIn(message);
    const auto have = static_cast<std::size_t>(got);
    if (!receiveAll(line, reinterpret_cast<char*>(&head) + have, sizeof head - have) ||
        head.length > longestMessage) {
        return std::nullopt;
    }
    received.letter = head.letter;
    received.bytes.resize(head.length);
    return receiveAll(line, received.bytes.data(), received.bytes.size()) ? std::optional(std::move(received))
                                                                          : std::nullopt;
}

} // namespace sober
