<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Plinth\Core\Plan\Editing\Exception\UnusableEdit;
use Plinth\Core\Plan\Editing\Mend;
use Plinth\Core\Plan\Editing\MendAct;
use Plinth\Core\Plan\Settling\StoreySettled;

/** Carries out the one act that mends two walls which lie on each other. */
final readonly class Mending
{
    public function __construct(private WallEdits $edits)
    {
    }

    public function mend(Wall $first, Wall $second): void
    {
        if ($first === $second) {
            throw UnusableEdit::sameTwice();
        }
        [$workspace, $at] = [$this->edits->workspace, $this->edits->at];
        $mend = Mend::of(StoreyWalls::core($workspace, $first), StoreyWalls::core($workspace, $second));
        [$wall, $other] = $mend->wall === $first->id()->toRfc4122() ? [$first, $second] : [$second, $first];
        switch ($mend->act) {
            case MendAct::Merge:
                $this->merge($wall, $other, $mend);
                break;
            case MendAct::Remove:
                $ends = [$wall->fromNode(), $wall->toNode()];
                $workspace->remove($wall, $at);
                $this->edits->removeUnused($ends);
                break;
            case MendAct::Beside:
            case MendAct::Trim:
                $this->edits->lead($wall, $mend->from, $mend->to);
                if (null !== $mend->cornerAtStart) {
                    $core = StoreyWalls::core($workspace, $other);
                    $corner = true === $mend->cutAtStart ? $mend->from : $mend->to;
                    [$from, $to] = $mend->cornerAtStart ? [$corner, $core->to] : [$core->from, $corner];
                    $this->edits->lead($other, $from, $to);
                }
        }
    }

    /** The other wall goes on as far as both reached; doors and windows that both have stay once. */
    private function merge(Wall $wall, Wall $other, Mend $mend): void
    {
        [$workspace, $at] = [$this->edits->workspace, $this->edits->at];
        $core = StoreyWalls::core($workspace, $wall);
        $stays = StoreyWalls::core($workspace, $other);
        $this->edits->follow($other, StoreySettled::along($stays->from, $mend->from, $mend->to));
        [$along, $across] = [$core->to->x - $core->from->x, $core->to->y - $core->from->y];
        $runsBack = $along * ($mend->to->x - $mend->from->x) + $across * ($mend->to->y - $mend->from->y) < 0.0;
        if ($runsBack) {
            $this->edits->reverse($wall);
            $core = StoreyWalls::core($workspace, $wall);
        }
        $shift = StoreySettled::along($core->from, $mend->from, $mend->to);
        $taken = array_map(
            static fn (Opening $o): array => [$o->offset(), $o->offset() + $o->width()],
            $workspace->findBy(Opening::class, 'wall', $other->id()),
        );
        foreach ($workspace->findBy(Opening::class, 'wall', $wall->id()) as $opening) {
            $start = $opening->offset() + $shift;
            $isDouble = [] !== array_filter($taken, static fn (array $t): bool => $start < $t[1] && $t[0] < $start + $opening->width());
            if ($isDouble) {
                $workspace->remove($opening, $at);
            } else {
                $workspace->set($opening, ['wall' => $other->id()->toRfc4122(), 'offset' => $start], $at);
            }
        }
        foreach (['a', 'b'] as $end) {
            foreach ($workspace->findBy(Figure::class, $end, $wall->id()) as $figure) {
                $isBetween = $other->id()->toRfc4122() === $figure->values()['a' === $end ? 'b' : 'a'];
                if ($isBetween) {
                    $workspace->remove($figure, $at);
                } else {
                    $workspace->set($figure, [$end => $other->id()->toRfc4122()], $at);
                }
            }
        }
        $all = [$wall->fromNode(), $wall->toNode(), $other->fromNode(), $other->toNode()];
        $node = static fn (bool $start): string => ($start !== $runsBack ? $wall->fromNode() : $wall->toNode())->toRfc4122();
        $ends = array_filter(
            [
                'fromNode' => null === $mend->takesFrom ? null : $node($mend->takesFrom),
                'toNode' => null === $mend->takesTo ? null : $node($mend->takesTo),
            ],
            static fn (?string $id): bool => null !== $id,
        );
        $workspace->remove($wall, $at);
        $workspace->set($other, $ends, $at);
        $this->edits->removeUnused($all);
    }
}
