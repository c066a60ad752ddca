<?php

declare(strict_types=1);

namespace Plinth\Core\Stairs;

/** Treads one after another whose risers run alongside each other: what one dimension tells of a stair. */
final readonly class Flight
{
    /**
     * @param int $treads so many, at least two
     * @param float $going mm of each
     * @param array{array{float, float}, array{float, float}} $left its left edge going up, mm of the plan
     * @param array{array{float, float}, array{float, float}} $right
     */
    public function __construct(public int $treads, public float $going, public array $left, public array $right)
    {
    }

    /** @return list<self> from below; none where a stair winds all the way */
    public static function of(StairForm $form): array
    {
        $flights = [];
        $run = [];
        foreach ([...$form->treads, null] as $tread) {
            $goesOn = null !== $tread && $tread->isStraight && !$tread->isLanding
                && ([] === $run || abs($run[0]->going - $tread->going) < 0.5);
            if (!$goesOn) {
                if (\count($run) > 1) {
                    [$first, $last] = [$run[0], $run[\count($run) - 1]];
                    [[$fromLeft, $fromRight], [$toLeft, $toRight]] = [$first->below(), $last->above()];
                    $flights[] = new self(\count($run), $first->going, [$fromLeft, $toLeft], [$fromRight, $toRight]);
                }
                $run = null !== $tread && $tread->isStraight && !$tread->isLanding ? [$tread] : [];
                continue;
            }
            $run[] = $tread;
        }

        return $flights;
    }
}
