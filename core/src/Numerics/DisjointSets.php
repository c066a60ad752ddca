<?php

declare(strict_types=1);

namespace Plinth\Core\Numerics;

/** Sets of whole numbers that are one, by a forest with halved paths. A number that was never named is a set of its own. */
final class DisjointSets
{
    /** @var array<int, int> */
    private array $parent = [];

    /** The lower of two roots stands for both, so that the same unions in any order have the same roots. */
    public function unite(int $a, int $b): void
    {
        [$a, $b] = [$this->root($a), $this->root($b)];
        if ($a !== $b) {
            $this->parent[max($a, $b)] = min($a, $b);
        }
    }

    public function root(int $member): int
    {
        while (isset($this->parent[$member])) {
            $above = $this->parent[$member];
            if (isset($this->parent[$above])) {
                $this->parent[$member] = $this->parent[$above];
            }
            $member = $above;
        }

        return $member;
    }
}
