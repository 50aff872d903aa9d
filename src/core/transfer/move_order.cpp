#include "core/transfer/move_order.h"

#include <unordered_map>

namespace sober {

MoveOrder orderOfMoves(std::span<const std::pair<BytePath, BytePath>> moves) {
    std::unordered_map<BytePath, std::size_t> at; // who is at a place now
    for (std::size_t i = 0; i < moves.size(); ++i) {
        at.emplace(moves[i].first, i);
    }
    enum class Seen { no, onTheWay, done };
    std::vector<Seen> seen(moves.size(), Seen::no);
    MoveOrder order;
    for (std::size_t start = 0; start < moves.size(); ++start) {
        std::vector<std::size_t> chain; // each waits for the next to go
        std::size_t who = start;
        while (seen[who] == Seen::no) {
            seen[who] = Seen::onTheWay;
            chain.push_back(who);
            const auto next = at.find(moves[who].second);
            if (next == at.end() || next->second == who) {
                break;
            }
            who = next->second;
        }
        const bool goesRound = chain.size() > 1 && who == start;
        for (const auto each : chain) {
            seen[each] = Seen::done;
        }
        if (goesRound) {
            order.rounds.push_back(std::move(chain));
        } else {
            order.first.insert(order.first.end(), chain.rbegin(), chain.rend());
        }
    }
    return order;
}

} // namespace sober
