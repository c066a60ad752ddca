<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Settling;

/**
 * Sets of coordinates whose differences are known: each member knows how far it lies beyond its set's first.
 *
 * @internal
 */
final class Potentials
{
    /** @var array<string, string> */
    private array $parent = [];
    /** @var array<string, float> */
    private array $beyond = [];
    /** @var array<string, list<array{string, string|null}>> ties by member: the other, and the figure that said so */
    private array $ties = [];

    /** The second lies so far beyond the first. Of two that are tied already nothing is changed. */
    public function tie(string $a, string $b, float $mm, ?string $figure = null): void
    {
        [$ra, $oa] = $this->root($a);
        [$rb, $ob] = $this->root($b);
        if ($ra === $rb) {
            return;
        }
        $this->parent[$rb] = $ra;
        $this->beyond[$rb] = $oa + $mm - $ob;
        $this->ties[$a][] = [$b, $figure];
        $this->ties[$b][] = [$a, $figure];
    }

    /** @return array{string, float} the set's first, and how far this one lies beyond it */
    public function root(string $member): array
    {
        $off = 0.0;
        $at = $member;
        while (isset($this->parent[$at])) {
            $off += $this->beyond[$at];
            $at = $this->parent[$at];
        }
        if ($at !== $member) {
            $this->parent[$member] = $at;
            $this->beyond[$member] = $off;
        }

        return [$at, $off];
    }

    /** How far the second lies beyond the first; null when they are not tied. */
    public function between(string $a, string $b): ?float
    {
        [$ra, $oa] = $this->root($a);
        [$rb, $ob] = $this->root($b);

        return $ra === $rb ? $ob - $oa : null;
    }

    /** @return list<string> figures on the way from one to the other */
    public function path(string $a, string $b): array
    {
        $from = [$a => [null, null]];
        $open = [$a];
        while (null !== ($at = array_shift($open))) {
            if ($at === $b) {
                break;
            }
            foreach ($this->ties[$at] ?? [] as [$other, $figure]) {
                if (!isset($from[$other])) {
                    $from[$other] = [$at, $figure];
                    $open[] = $other;
                }
            }
        }
        $figures = [];
        for ($at = $b; isset($from[$at]) && null !== $from[$at][0]; $at = $from[$at][0]) {
            if (null !== $from[$at][1]) {
                $figures[] = $from[$at][1];
            }
        }

        return array_reverse($figures);
    }
}
