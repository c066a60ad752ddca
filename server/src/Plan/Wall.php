<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Line;
use Plinth\Core\Plan\Wall as CoreWall;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowType;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Http\Refusal;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A straight wall between two nodes; the box round its body serves look-ups by place. */
#[ORM\Entity]
#[ORM\Index(fields: ['project'])]
#[ORM\Index(fields: ['storey', 'xMin', 'xMax'])]
#[ORM\Index(fields: ['fromNode'])]
#[ORM\Index(fields: ['toNode'])]
class Wall extends ProjectRow
{
    public const FOLLOWS = ['xMin', 'yMin', 'xMax', 'yMax'];

    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $storey;

    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $fromNode;

    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $toNode;

    /** mm */
    #[ORM\Column]
    private float $thickness = 100.0;

    /** mm; null takes the storey's */
    #[ORM\Column(nullable: true)]
    private ?float $height = null;

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

    public static function type(): RowType
    {
        return RowType::Wall;
    }

    public function values(): array
    {
        return [
            'storey' => $this->storey->toRfc4122(), 'fromNode' => $this->fromNode->toRfc4122(), 'toNode' => $this->toNode->toRfc4122(),
            'thickness' => $this->thickness, 'height' => $this->height, 'line' => $this->line->value, 'evidence' => $this->evidence->value,
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
    }

    public function references(): array
    {
        return [[RowType::Storey, $this->storey, 'storey'], [RowType::Node, $this->fromNode, 'fromNode'], [RowType::Node, $this->toNode, 'toNode']];
    }

    /** Checks the length and keeps the box true, once both ends are known. */
    public function span(Point $from, Point $to): CoreWall
    {
        $wall = new CoreWall($this->id->toRfc4122(), $from, $to, $this->thickness, $this->line, $this->height);
        if ($wall->length() <= CoreWall::JOIN_MM) {
            throw Refusal::invalid('wall-of-no-length', \sprintf('A wall needs a length: its ends are only %.2f mm apart.', $wall->length()), $this->id->toRfc4122());
        }
        $half = $this->thickness / 2.0;
        $this->xMin = min($from->x, $to->x) - $half;
        $this->xMax = max($from->x, $to->x) + $half;
        $this->yMin = min($from->y, $to->y) - $half;
        $this->yMax = max($from->y, $to->y) + $half;

        return $wall;
    }

    /** @return array{float, float, float, float} xMin, yMin, xMax, yMax of the body */
    public function box(): array
    {
        return [$this->xMin, $this->yMin, $this->xMax, $this->yMax];
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
