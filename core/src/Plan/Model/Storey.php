<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

use Plinth\Core\Plan\Model\Exception\UnusableValue;
use Plinth\Core\Plan\Model\Internal\Checked;

/** One floor of a plan. */
final readonly class Storey
{
    /**
     * @param float $elevation mm above the project's zero
     * @param float $height mm, storey height
     * @param list<Wall> $walls
     * @param list<Opening> $openings
     * @param list<Room> $rooms
     * @param list<Divider> $dividers
     * @param list<Column> $columns
     * @param list<Figure> $figures that were decided
     *
     * @throws UnusableValue
     */
    public function __construct(
        public string $id,
        public string $name,
        public float $elevation,
        public float $height,
        public array $walls,
        public array $openings = [],
        public array $rooms = [],
        public array $dividers = [],
        public array $columns = [],
        public array $figures = [],
    ) {
        Checked::within("storey $id/elevation", $elevation);
        Checked::size("storey $id/height", $height);
    }

    /**
     * @param list<Wall> $walls
     * @param list<Opening> $openings
     */
    public function with(array $walls, array $openings): self
    {
        return new self(
            $this->id,
            $this->name,
            $this->elevation,
            $this->height,
            $walls,
            $openings,
            $this->rooms,
            $this->dividers,
            $this->columns,
            $this->figures,
        );
    }
}
