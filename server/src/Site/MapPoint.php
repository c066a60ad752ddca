<?php

declare(strict_types=1);

namespace Plinth\Server\Site;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A corner of a boundary, or the plan's zero, whose coordinates in a map are known. */
#[Kind('mapPoint', isMoved: false)]
#[ORM\Entity]
class MapPoint extends ProjectRow
{
    /** m: no map of the earth reaches further from its zero */
    private const FURTHEST = 3e7;
    private const DEEPEST = 12_000.0;

    /** by the registry of references: `EPSG:` and its number */
    #[ORM\Column(name: 'map_reference', length: 40)]
    private string $reference = '';

    /** null for the plan's zero */
    #[Refers(Boundary::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    private ?Uuid $boundary = null;

    /** which of its corners, from 0: where it begins */
    #[ORM\Column]
    private int $corner = 0;

    #[ORM\Column]
    private float $east = 0.0;

    #[ORM\Column]
    private float $north = 0.0;

    /** m of the project's zero level there */
    #[ORM\Column(nullable: true)]
    private ?float $height = null;

    public function values(): array
    {
        return [
            'reference' => $this->reference, 'boundary' => $this->boundary?->toRfc4122(), 'corner' => $this->corner,
            'east' => $this->east, 'north' => $this->north, 'height' => $this->height,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->reference = strtoupper(trim($values->text('reference', 40)));
        if (1 !== preg_match('/^EPSG:\d{4,6}$/', $this->reference)) {
            throw UnreadableDocument::outOfRange($values->at('reference'), 'a reference by its number, such as EPSG:25832');
        }
        $this->boundary = $values->optionalId('boundary');
        $this->corner = null === $this->boundary ? 0 : $values->count('corner');
        $this->east = self::within($values, 'east', self::FURTHEST);
        $this->north = self::within($values, 'north', self::FURTHEST);
        $this->height = null === $values->optionalNumber('height') ? null : self::within($values, 'height', self::DEEPEST);
    }

    public function reference(): string
    {
        return $this->reference;
    }

    public function boundary(): ?Uuid
    {
        return $this->boundary;
    }

    public function corner(): int
    {
        return $this->corner;
    }

    public function east(): float
    {
        return $this->east;
    }

    public function north(): float
    {
        return $this->north;
    }

    public function height(): ?float
    {
        return $this->height;
    }

    private static function within(RowValues $values, string $key, float $most): float
    {
        $number = $values->number($key);

        return abs($number) <= $most ? $number : throw UnreadableDocument::outOfRange($values->at($key), \sprintf('within ± %.0f m', $most));
    }
}
