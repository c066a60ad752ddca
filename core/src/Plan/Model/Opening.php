<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

use Plinth\Core\Plan\Model\Exception\UnusableValue;
use Plinth\Core\Plan\Model\Internal\Checked;

/** A door, window or plain opening; `offset` runs along the wall's centre line from its start to the near edge. */
final readonly class Opening
{
    /** How many leaves a door has; a sliding one runs along its wall. */
    public const LEAVES = ['single', 'double', 'sliding'];

    /**
     * @param float|null $height from its sill to its highest point, mm; where it is not known it reaches to the top of its wall
     * @param float $rise of its head over its springing, mm, where that is part of a circle
     * @param string $rated its class of fire resistance as it was typed, without any where it is not rated
     *
     * @throws UnusableValue
     */
    public function __construct(
        public string $id,
        public string $wall,
        public OpeningKind $kind,
        public float $offset,
        public float $width,
        public float $sill = 0.0,
        public ?float $height = null,
        public string $hand = 'left',
        public string $swing = 'left',
        public string $leaf = 'single',
        public OpeningHead $head = OpeningHead::Level,
        public float $rise = 0.0,
        public DoorExit $exit = DoorExit::None,
        public string $rated = '',
    ) {
        Checked::within("opening $id/offset", $offset);
        Checked::size("opening $id/width", $width);
        Checked::within("opening $id/sill", $sill);
        Checked::size("opening $id/height", $height);
        Checked::within("opening $id/rise", $rise);
    }

    /** The same further along its wall, mm. */
    public function shifted(float $mm): self
    {
        return new self(
            $this->id,
            $this->wall,
            $this->kind,
            $this->offset + $mm,
            $this->width,
            $this->sill,
            $this->height,
            $this->hand,
            $this->swing,
            $this->leaf,
            $this->head,
            $this->rise,
            $this->exit,
            $this->rated,
        );
    }
}
