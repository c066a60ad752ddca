<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Plan;

use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Derivation\Region;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Plan\Network\Network;
use Plinth\Core\Plan\Network\Pieces;
use Plinth\Core\Plan\Network\WholeStorey;
use Plinth\Core\Tests\Outside;

/**
 * Tangled plans derived here and by GEOS (general-purpose library): area of bodies and areas of rooms. GEOS gets the network's own
 * edges: which of them there are is for NetworkTest, what they cover is told here.
 *
 * @phpstan-type Edge array{from: array{float, float}, to: array{float, float}, thickness: float, along: array{float, float}}
 */
final class AgainstGeos
{
    /** mm²; less is no room */
    private const LEAST_ROOM = 10_000.0;
    /** of the larger area, mm² of so many mm² */
    private const ALIKE = 1e-6;

    /** @return list<string> in words, one for each plan of which both do not tell the same */
    public static function disagreements(int $first, int $count): array
    {
        [$plans, $ours] = [[], []];
        for ($seed = $first; $seed < $first + $count; ++$seed) {
            $walls = Plans::tangled($seed);
            $derived = Derivation::of(Plans::storey($walls));
            $plans[] = $edges = self::edges($walls);
            $areas = array_map(static fn (Region $r): float => $r->netAreaMm2, $derived->regions);
            $rooms = array_values(array_filter($areas, static fn (float $a): bool => $a > self::LEAST_ROOM));
            sort($rooms);
            $ours[] = [$seed, self::slack($edges), $derived->areasMm2['structure'], $rooms];
        }
        $theirs = Outside::ask('plans.py', ['plans' => $plans])['plans'];
        \assert(\is_array($theirs));
        $told = [];
        foreach ($ours as $i => [$seed, $slack, $body, $rooms]) {
            \assert(\is_array($theirs[$i]));
            ['body' => $union, 'rooms' => $left, 'nicks' => $nicks] = $theirs[$i];
            \assert(is_numeric($union) && is_numeric($nicks) && \is_array($left));
            $within = self::ALIKE * max([1.0, ...$rooms]) + (float) $nicks + $slack;
            $off = array_filter(
                array_map(static fn (mixed $a, ?float $b): bool => !is_numeric($a) || abs((float) $a - ($b ?? -1.0)) > $within, $left, $rooms),
            );
            if (abs((float) $union - $body) > self::ALIKE * (float) $union + $slack) {
                $told[] = \sprintf('seed %d: bodies %.0f mm² here, %.0f there', $seed, $body, (float) $union);
            } elseif (\count($left) !== \count($rooms) || [] !== $off) {
                $told[] = \sprintf('seed %d: rooms %s here, %s there', $seed, json_encode($rooms), json_encode($left));
            }
        }

        return $told;
    }

    /**
     * The network's edges, with the way that their faces run: a node that lies beside its wall's line, within the tolerance that ends are
     * joined by, does not turn them.
     *
     * @param list<Wall> $walls
     *
     * @return list<Edge>
     */
    private static function edges(array $walls): array
    {
        $plan = new WholeStorey(Plans::storey($walls));
        $network = new Network($pieces = new Pieces($plan));
        $pieces->near(...$plan->bounds() ?? [0.0, 0.0, 0.0, 0.0]);
        $edges = [];
        foreach ($walls as $wall) {
            foreach ($pieces->ofWall($wall->id) as $piece) {
                foreach ($network->along($piece) as $e) {
                    ['start' => $from, 'end' => $to, 'dx' => $dx, 'dy' => $dy, 'half' => $half] = $network->halves[2 * $e];
                    $edges[$e] = [
                        'from' => $network->nodes[$from],
                        'to' => $network->nodes[$to],
                        'thickness' => 2.0 * $half,
                        'along' => [$dx, $dy],
                    ];
                }
            }
        }

        return array_values($edges);
    }

    /**
     * Where an edge's nodes lie beside each other's lines its body is told by either, mm².
     *
     * @param list<Edge> $edges
     */
    private static function slack(array $edges): float
    {
        return array_sum(array_map(static function (array $e): float {
            [$dx, $dy] = [$e['to'][0] - $e['from'][0], $e['to'][1] - $e['from'][1]];
            $off = abs($dx * $e['along'][1] - $dy * $e['along'][0]);

            return $off < 1e-6 ? 0.0 : 2.0 * $off * (hypot($dx, $dy) + $e['thickness']);
        }, $edges));
    }
}
