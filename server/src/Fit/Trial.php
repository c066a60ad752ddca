<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Plinth\Core\Geometry\PixelToMm;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Source\Drawing;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;

/** What a change would do to the fits, told without doing it. */
final readonly class Trial
{
    /** @param iterable<Traced> $traced */
    public function __construct(
        private FitReport $reports,
        private SlipFinder $slips,
        #[AutowireIterator(Traced::class)] private iterable $traced,
    ) {
    }

    /**
     * Asked inside the transaction that is taken back afterwards, when the change has been made.
     *
     * @return array{fits: list<array<string, mixed>>, slips: list<array<string, mixed>>, moves: list<array{drawing: string, mm: float,
     *   traced: int}>}
     */
    public function of(Workspace $workspace): array
    {
        $fits = [];
        $moves = [];
        foreach ($workspace->before() as [$class, $id, $before]) {
            $row = DrawingFit::class === $class ? $workspace->find(DrawingFit::class, $id) : null;
            $drawing = null === $row ? null : $workspace->find(Drawing::class, $id);
            if (null !== $row && null !== $drawing) {
                $fits[] = $this->reports->of($row, $drawing);
                if (null !== $before) {
                    $moves[] = $this->move($workspace, $drawing, DrawingFit::mapOf($before), $row);
                }
            }
        }
        $lengths = [];
        foreach ($workspace->touched(KnownLength::class) as $length) {
            $lengths[$length->drawing()->toRfc4122()][] = $length;
        }
        $slips = [];
        foreach ($lengths as $of) {
            $drawing = $workspace->find(Drawing::class, $of[0]->drawing());
            $fit = null === $drawing ? null : $workspace->find(DrawingFit::class, $drawing->id());
            foreach (null === $drawing || null === $fit ? [] : $this->slips->in($of, $drawing, $fit) as [$length, $slip]) {
                $slips[] = [
                    'id' => $length->id()->toRfc4122(),
                    'code' => $slip->code,
                    'message' => $slip->message,
                    'wouldBeMm' => $slip->wouldBeMm,
                ];
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
        $workspace->flush();
        [$most, $count] = [0.0, 0];
        foreach ($this->traced as $traced) {
            foreach ($traced->places($workspace, $drawing) as $from) {
                $most = max($most, $fit->pixelToMm()->toMm($old->toPixel($from))->distanceTo($from));
                ++$count;
            }
        }

        return ['drawing' => $drawing->id()->toRfc4122(), 'mm' => $most, 'traced' => $count];
    }
}
