<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Server\Change\RowType;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Plan\Node;
use Plinth\Server\Source\Drawing;

/** What a change would do to the fits, told without doing it. */
final readonly class Trial
{
    public function __construct(private EntityManagerInterface $entities, private FitReport $reports, private SlipFinder $slips)
    {
    }

    /**
     * Asked inside the transaction that is taken back afterwards, when the change has been made.
     *
     * @return array{fits: list<array<string, mixed>>, slips: list<array<string, mixed>>, moves: list<array{drawing: string, mm: float, traced: int}>}
     */
    public function of(Workspace $workspace): array
    {
        $fits = [];
        $moves = [];
        foreach ($workspace->before() as [$type, $id, $before]) {
            $row = RowType::Fit === $type ? $workspace->find(RowType::Fit, $id) : null;
            $drawing = null === $row ? null : $workspace->find(RowType::Drawing, $id);
            if ($row instanceof DrawingFit && $drawing instanceof Drawing) {
                $fits[] = $this->reports->of($row, $drawing);
                if (null !== $before) {
                    $moves[] = $this->move($workspace, $drawing, DrawingFit::mapOf($before), $row);
                }
            }
        }
        $slips = [];
        foreach ($workspace->touched(RowType::KnownLength) as $length) {
            $drawing = $length instanceof KnownLength ? $workspace->find(RowType::Drawing, $length->drawing()) : null;
            $fit = null === $drawing ? null : $workspace->find(RowType::Fit, $drawing->id());
            if ($length instanceof KnownLength && $drawing instanceof Drawing && $fit instanceof DrawingFit) {
                $slip = $this->slips->in($length, $drawing, $fit);
                if (null !== $slip) {
                    $slips[] = ['id' => $length->id()->toRfc4122(), 'code' => $slip->code, 'message' => $slip->message, 'wouldBeMm' => $slip->wouldBeMm];
                }
            }
        }

        return ['fits' => $fits, 'slips' => $slips, 'moves' => $moves];
    }

    /**
     * How far what was traced over a drawing would go, were it carried along.
     *
     * @return array{drawing: string, mm: float, traced: int}
     */
    private function move(Workspace $workspace, Drawing $drawing, PixelToMm $old, DrawingFit $fit): array
    {
        $this->entities->flush();
        $nodes = $workspace->findBy(Node::class, 'drawing', $drawing->id());
        $most = 0.0;
        foreach ($nodes as $node) {
            $at = $workspace->before()[RowType::Node->value.'/'.$node->id()->toRfc4122()][2] ?? $node->values();
            $from = new Point((float) $at['x'], (float) $at['y']);
            $most = max($most, $fit->pixelToMm()->toMm($old->toPixel($from))->distanceTo($from));
        }

        return ['drawing' => $drawing->id()->toRfc4122(), 'mm' => $most, 'traced' => \count($nodes)];
    }
}
