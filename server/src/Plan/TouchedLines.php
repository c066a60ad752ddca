<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\Divider;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Plan\Network\Neighbourhood;

/**
 * What a change has touched on a storey, as its derivation wants to know it.
 *
 * @phpstan-import-type Box from Neighbourhood
 */
final class TouchedLines
{
    /** @var array<string, Box> round walls and dividers as they were and as they are */
    public array $boxes = [];
    /** @var list<string> ids of lines that were changed or are gone */
    public array $lines = [];
    /** @var list<Box> round what else has to be looked at */
    public array $seen = [];
    /** @var list<string> ids of lines that are gone */
    public array $removed = [];
    /** @var array<string, Wall> walls whose openings were touched, by id */
    public array $reshaped = [];
    /** @var list<Point> anchors of rooms, corners of columns */
    public array $points = [];
    /** @var list<string> ids */
    public array $rooms = [];

    public function line(string $id, Wall|Divider|null $before, Wall|Divider|null $after): void
    {
        foreach (['before' => $before, 'after' => $after] as $when => $line) {
            if (null !== $line) {
                $this->boxes["$when $line->id"] = $line->box();
            }
        }
        $this->lines[] = $id;
        if (null === $after) {
            $this->removed[] = $id;
        }
    }
}
