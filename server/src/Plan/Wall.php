<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Core\Geometry\Arc;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Line;
use Plinth\Core\Plan\Model\Wall as CoreWall;
use Plinth\Core\Units\Length;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Project\DrawnOnStorey;
use Plinth\Server\Project\OnStorey;
use Plinth\Server\Project\Storey;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A wall between two nodes; the box round its body serves look-ups by place. */
#[Kind('wall')]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'storey', 'xMin', 'xMax'])]
#[ORM\Index(fields: ['project', 'storey', 'xMax'])]
#[ORM\Index(fields: ['project', 'storey', 'yMin'])]
#[ORM\Index(fields: ['project', 'storey', 'yMax'])]
#[ORM\Index(fields: ['project', 'fromNode'])]
#[ORM\Index(fields: ['project', 'toNode'])]
class Wall extends ProjectRow implements OnStorey, DrawnOnStorey
{
    public const FOLLOWS = ['xMin', 'yMin', 'xMax', 'yMax'];

    #[Refers(Storey::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $storey;

    #[Refers(Node::class, alone: true)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $fromNode;

    #[Refers(Node::class, alone: true)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $toNode;

    /** mm */
    #[ORM\Column]
    private float $thickness = 100.0;

    /** mm; null takes the storey's */
    #[ORM\Column(nullable: true)]
    private ?float $height = null;

    /** of an arc over its chord, mm, positive to the left from the start to the end */
    #[ORM\Column(options: ['default' => 0])]
    private float $rise = 0.0;

    /** bounds rooms */
    #[ORM\Column(options: ['default' => true])]
    private bool $enclosing = true;

    /** ends under the ceiling that covers it */
    #[ORM\Column(options: ['default' => false])]
    private bool $toCeiling = false;

    /** posts and balusters between rails */
    #[ORM\Column(options: ['default' => false])]
    private bool $railing = false;

    #[Refers(BuildUp::class)]
    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    private ?Uuid $buildUp = null;

    #[ORM\Column(length: 6)]
    private Line $line = Line::Centre;

    #[ORM\Column(length: 10)]
    private Evidence $evidence = Evidence::Ink;

    #[ORM\Column]
    private float $xMin = 0.0;

    #[ORM\Column]
    private float $yMin = 0.0;

    #[ORM\Column]
    private float $xMax = 0.0;

    #[ORM\Column]
    private float $yMax = 0.0;

    public static function onStorey(): string
    {
        return 'r.storey = :storey';
    }

    public function values(): array
    {
        return [
            'storey' => $this->storey->toRfc4122(), 'fromNode' => $this->fromNode->toRfc4122(), 'toNode' => $this->toNode->toRfc4122(),
            'thickness' => $this->thickness, 'height' => $this->height, 'line' => $this->line->value, 'evidence' => $this->evidence->value,
            'rise' => $this->rise, 'enclosing' => $this->enclosing, 'toCeiling' => $this->toCeiling, 'railing' => $this->railing,
            'buildUp' => $this->buildUp?->toRfc4122(),
        ];
    }

    public function take(RowValues $values): void
    {
        $this->storey = $values->id('storey');
        $this->fromNode = $values->id('fromNode');
        $this->toNode = $values->id('toNode');
        if ($this->fromNode->equals($this->toNode)) {
            throw Refusal::invalid('wall-of-no-length', 'A wall needs a length: its two ends are the same node.', $values->at('toNode'));
        }
        $this->thickness = $values->positive('thickness', CoreWall::THICKEST_MM);
        $this->height = $values->optionalPositive('height');
        $this->line = $values->choice('line', Line::class);
        $this->evidence = $values->choice('evidence', Evidence::class);
        $this->rise = self::possibleRise($values->optionalNumber('rise') ?? 0.0, $values->at('rise'));
        $this->enclosing = $values->flagOr('enclosing', true);
        $this->toCeiling = $values->flagOr('toCeiling', false);
        $this->railing = $values->flagOr('railing', false);
        $this->buildUp = $values->optionalId('buildUp');
    }

    /** @param array<string, scalar|null> $values of a wall's row */
    public static function core(string $id, array $values, Point $from, Point $to): CoreWall
    {
        return new CoreWall(
            $id,
            $from,
            $to,
            (float) $values['thickness'],
            Line::from((string) $values['line']),
            isset($values['height']) ? (float) $values['height'] : null,
            (float) ($values['rise'] ?? 0.0),
            (bool) ($values['enclosing'] ?? true),
            (bool) ($values['toCeiling'] ?? false),
            (bool) ($values['railing'] ?? false),
        );
    }

    /** Checks the length and keeps the box true, once both ends are known. */
    public function span(Point $from, Point $to): CoreWall
    {
        if ($from->distanceTo($to) <= CoreWall::JOIN_MM) {
            throw Refusal::invalid(
                'wall-of-no-length',
                \sprintf('A wall needs a length: its ends are only %s apart.', Length::told($from->distanceTo($to), 2)),
                $this->id->toRfc4122(),
            );
        }
        $wall = self::core($this->id->toRfc4122(), $this->values(), $from, $to);
        [$this->xMin, $this->yMin, $this->xMax, $this->yMax] = $wall->box();

        return $wall;
    }

    /** @return array{float, float, float, float} xMin, yMin, xMax, yMax of the body */
    public function box(): array
    {
        return [$this->xMin, $this->yMin, $this->xMax, $this->yMax];
    }

    /** @throws UnreadableDocument where no wall rises so far over its chord */
    public static function possibleRise(float $rise, string $at): float
    {
        if (0.0 !== $rise && (abs($rise) < Arc::LEAST_RISE_MM || abs($rise) > CoreWall::MOST_RISE_MM)) {
            throw UnreadableDocument::outOfRange(
                $at,
                \sprintf('zero for a straight wall, or from %g mm to %d km', Arc::LEAST_RISE_MM, CoreWall::MOST_RISE_MM / 1e6),
            );
        }

        return $rise;
    }

    public function rise(): float
    {
        return $this->rise;
    }

    public function thickness(): float
    {
        return $this->thickness;
    }

    public function storey(): Uuid
    {
        return $this->storey;
    }

    public function fromNode(): Uuid
    {
        return $this->fromNode;
    }

    public function toNode(): Uuid
    {
        return $this->toNode;
    }
}
