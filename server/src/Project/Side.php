<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Projection\Exception\UndrawableView;
use Plinth\Core\Projection\View;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Http\Refusal;

/** The vertical plane that elevations and sections of one face of the building stand on. */
#[Kind('side')]
#[ORM\Entity]
class Side extends ProjectRow
{
    private const SHORTEST_MM = 100.0;
    private const LONGEST = 2000;

    #[ORM\Column(length: 120)]
    private string $name = '';

    /** its line on the plan, from its left end to its right as it is looked at; mm. Null while it has none */
    #[ORM\Column(nullable: true)]
    private ?float $fromX = null;

    #[ORM\Column(nullable: true)]
    private ?float $fromY = null;

    #[ORM\Column(nullable: true)]
    private ?float $toX = null;

    #[ORM\Column(nullable: true)]
    private ?float $toY = null;

    /** whether it is a section: cut along its line, instead of all of the building seen from there */
    #[ORM\Column(options: ['default' => false])]
    private bool $cut = false;

    /** mm behind the line that are shown; all there is without it */
    #[ORM\Column(nullable: true)]
    private ?float $depth = null;

    /** places between the ends of a cutting line, where it has jogs */
    #[ORM\Column(type: Types::TEXT)]
    private string $jogs = '';

    public function values(): array
    {
        return [
            'name' => $this->name, 'fromX' => $this->fromX, 'fromY' => $this->fromY, 'toX' => $this->toX, 'toY' => $this->toY,
            'cut' => $this->cut, 'depth' => $this->depth, 'jogs' => $this->jogs,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->name = $values->name('name');
        [$this->fromX, $this->fromY, $this->toX, $this->toY] = [
            $values->optionalNumber('fromX'),
            $values->optionalNumber('fromY'),
            $values->optionalNumber('toX'),
            $values->optionalNumber('toY'),
        ];
        $given = \count(array_filter([$this->fromX, $this->fromY, $this->toX, $this->toY], static fn (?float $v): bool => null !== $v));
        if (
            0 !== $given
            && (
                4 !== $given
                || hypot(($this->toX ?? 0.0) - ($this->fromX ?? 0.0), ($this->toY ?? 0.0) - ($this->fromY ?? 0.0)) < self::SHORTEST_MM
            )
        ) {
            throw Refusal::invalid(
                'no-line',
                'A side’s line runs between two points of the plan at least 100 mm apart, from its left end to its right as you look at it.',
                $values->at('fromX'),
            );
        }
        $this->cut = $values->flag('cut');
        $this->depth = $values->optionalPositive('depth');
        $this->jogs = $this->cut ? trim($values->text('jogs', self::LONGEST)) : '';
        $places = Places::read($this->jogs, $values->at('jogs'));
        if (4 === $given && [] !== $places) {
            try {
                $this->looks();
            } catch (UndrawableView $e) {
                throw Refusal::invalid('jogs', $e->getMessage(), $values->at('jogs'));
            }
        }
    }

    /**
     * Where one looks from.
     *
     * @throws UndrawableView
     */
    public function looks(): View
    {
        [$from, $to] = $this->line();
        $depth = $this->depth ?? \INF;

        return $this->cut
            ? View::section($this->looksAlong(), $depth)
            : View::side($from, $to, $depth);
    }

    /** @return non-empty-list<Point> its line with its jogs, from left to right as one looks */
    public function looksAlong(): array
    {
        [$from, $to] = $this->line();

        return [$from, ...array_column(Places::read($this->jogs, 'jogs'), 0), $to];
    }

    public function name(): string
    {
        return $this->name;
    }

    public function depth(): ?float
    {
        return $this->depth;
    }

    public function hasLine(): bool
    {
        return null !== $this->fromX;
    }

    /** @return array{Point, Point} left and right end of its line on the plan */
    public function line(): array
    {
        if (null === $this->fromX || null === $this->fromY || null === $this->toX || null === $this->toY) {
            throw Refusal::conflict(
                'no-line',
                \sprintf(
                    '“%s” has no line on the plan yet: draw it there first, from its left end to its right as you look at it.',
                    $this->name,
                ),
                'side',
            );
        }

        return [new Point($this->fromX, $this->fromY), new Point($this->toX, $this->toY)];
    }
}
