<?php

declare(strict_types=1);

namespace Plinth\Server\Drafting;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Elevation\Outline;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Project\Storey;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A closed shape that was drawn, taken along a path: the walls of its storey, an outline or the eaves of a roof, or a line that was drawn. */
#[Kind('sweep')]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'storey'])]
#[ORM\Index(fields: ['project', 'profile'])]
#[ORM\Index(fields: ['project', 'path'])]
#[ORM\Index(fields: ['project', 'outline'])]
class Sweep extends ProjectRow
{
    #[Refers(Storey::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $storey;

    #[ORM\Column(length: 120)]
    private string $name = '';

    #[Refers(DrawnLine::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $profile;

    /** which part of the profile's width lies to the left of the path, and which part of its height below it */
    #[ORM\Column]
    private float $heldX = 0.0;

    #[ORM\Column]
    private float $heldY = 0.0;

    /** the outline along which; with no line either, the outer faces of the walls */
    #[Refers(Outline::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    private ?Uuid $outline = null;

    #[Refers(DrawnLine::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    private ?Uuid $path = null;

    /** mm above the storey's level, of eaves above their lower edge; in front of the side that the path stands on */
    #[ORM\Column]
    private float $level = 0.0;

    #[ORM\Column]
    private bool $inward = false;

    public function values(): array
    {
        return [
            'storey' => $this->storey->toRfc4122(), 'name' => $this->name, 'profile' => $this->profile->toRfc4122(),
            'heldX' => $this->heldX, 'heldY' => $this->heldY, 'outline' => $this->outline?->toRfc4122(),
            'path' => $this->path?->toRfc4122(), 'level' => $this->level, 'inward' => $this->inward,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->storey = $values->id('storey');
        $this->name = $values->name('name');
        $this->profile = $values->id('profile');
        foreach (['heldX', 'heldY'] as $held) {
            $part = $values->optionalNumber($held) ?? 0.0;
            if ($part < 0.0 || $part > 1.0) {
                throw UnreadableDocument::outOfRange($values->at($held), 'from 0 to 1');
            }
            $this->$held = $part;
        }
        $this->outline = $values->optionalId('outline');
        $this->path = $values->optionalId('path');
        if (null !== $this->outline && null !== $this->path) {
            throw Refusal::invalid('one-path', 'A profile is taken along one path: name an outline or a line, not both.', $values->at('path'));
        }
        if (null !== $this->path && $this->path->equals($this->profile)) {
            throw Refusal::invalid('own-path', 'A profile cannot be taken along itself: choose another path.', $values->at('path'));
        }
        $this->level = $values->optionalNumber('level') ?? 0.0;
        if (abs($this->level) > RowValues::FURTHEST_MM) {
            throw UnreadableDocument::outOfRange($values->at('level'), 'within 10 km');
        }
        $this->inward = $values->flagOr('inward', false);
    }

    public function storey(): Uuid
    {
        return $this->storey;
    }

    public function profile(): Uuid
    {
        return $this->profile;
    }

    /** @return array{float, float} */
    public function held(): array
    {
        return [$this->heldX, $this->heldY];
    }

    public function outline(): ?Uuid
    {
        return $this->outline;
    }

    public function path(): ?Uuid
    {
        return $this->path;
    }

    public function level(): float
    {
        return $this->level;
    }

    public function isInward(): bool
    {
        return $this->inward;
    }
}
