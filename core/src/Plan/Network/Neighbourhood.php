<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Network;

use Plinth\Core\Geometry\Blocks;
use Plinth\Core\Plan\Model\Column;
use Plinth\Core\Plan\Model\Divider;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Wall;

/**
 * A storey as far as it is wanted: its things by place. Boxes are xmin, ymin, xmax, ymax in mm; an answer may hold more
 * than was asked for, never less.
 *
 * @phpstan-import-type Box from Blocks
 */
interface Neighbourhood
{
    /**
     * @param Box $box
     *
     * @return list<Wall|Divider> whose body touches the box
     */
    public function lines(array $box): array;

    /**
     * @param Box $box
     *
     * @return list<Column>
     */
    public function columns(array $box): array;

    /**
     * @param Box $box
     *
     * @return list<Room> whose anchor lies in the box
     */
    public function rooms(array $box): array;

    /**
     * @param list<string> $walls
     *
     * @return list<Opening>
     */
    public function openings(array $walls): array;

    /** @return Box|null round everything that is drawn */
    public function bounds(): ?array;
}
