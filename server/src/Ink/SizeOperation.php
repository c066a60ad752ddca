<?php

declare(strict_types=1);

namespace Plinth\Server\Ink;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Fitting\Agreed;
use Plinth\Core\Fitting\Along;
use Plinth\Core\Fitting\Ends;
use Plinth\Core\Fitting\Exception\FittingException;
use Plinth\Core\Fitting\FitStart;
use Plinth\Core\Fitting\Model;
use Plinth\Core\Units\LengthUnit;
use Plinth\Server\Change\Base;
use Plinth\Server\Change\Operation;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Fit\GridPick;
use Plinth\Server\Fit\Hand;
use Plinth\Server\Fit\KnownLength;
use Plinth\Server\Fit\LinesStated;
use Plinth\Server\Fit\Pick;
use Plinth\Server\Fit\Statements;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Project\Project;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\Page;
use Symfony\Component\Uid\Uuid;
use Symfony\Component\Uid\UuidV7;

/**
 * A drawing sized by its own figures in one act: all that were read become known lengths, those that square it run with the grid, a
 * photograph is straightened, a stretched copy put right where the figures speak for it, and those that disagree with the rest are held
 * out.
 */
final readonly class SizeOperation implements Operation
{
    public function __construct(private ReadingsLeft $left, private EntityManagerInterface $entities)
    {
    }

    public static function name(): string
    {
        return 'size';
    }

    public function apply(Workspace $workspace, JsonValue $wanted, Base $base): void
    {
        $wanted->object(['drawing']);
        $drawing = $workspace->current(Drawing::class, RowValues::uuid($wanted->get('drawing')), $base, $wanted->at.'/drawing');
        $figures = $this->left->figures($drawing);
        if ([] === $figures) {
            throw Refusal::invalid(
                'no-figures',
                'No figure read on this drawing is left to take: have its figures read, or state a known length.',
                $wanted->at.'/drawing',
            );
        }
        $slant = $this->left->slant($drawing);
        $unit = $workspace->get(Project::class, $workspace->project())->unit();
        $taken = array_map(static fn (FigureLeft $f): string => self::take($workspace, $drawing, $f, $unit, $wanted->at), $figures);
        $leaning = 'lines' === $slant ? $workspace->get(Page::class, $drawing->page())->leaning() : null;
        if (null !== $leaning) {
            LinesStated::of($workspace, $drawing, $leaning, $wanted->at);
        } elseif ('figures' === $slant) {
            $workspace->set($drawing, ['model' => Model::Perspective->value, 'ownFactor' => null], $wanted->at);
        }
        $this->agree($workspace, $drawing, $taken, $wanted->at);
    }

    /** @return string id of the known length that it is now */
    private static function take(Workspace $workspace, Drawing $drawing, FigureLeft $figure, LengthUnit $unit, string $at): string
    {
        $of = ['drawing' => $drawing->id()->toRfc4122()];
        $ends = [];
        foreach (['a' => $figure->a, 'b' => $figure->b] as $end => $place) {
            $pick = new UuidV7();
            $workspace->add(Pick::class, $pick, $of + ['x' => $place->x, 'y' => $place->y, 'sigmaPx' => $figure->sigmaPx], $at);
            $ends[$end] = $pick->toRfc4122();
        }
        $length = new UuidV7();
        $workspace->add(KnownLength::class, $length, $of + $ends + [
            'c' => null, 'text' => $figure->typed($unit), 'unit' => $unit->value, 'standing' => $figure->standing()->value,
            'ends' => Ends::OuterFace->value, 'picked' => Ends::OuterFace->value, 'along' => Along::Straight->value, 'heldOut' => false,
            'wholePage' => false,
        ], $at);
        if ($figure->squares && null !== $figure->along) {
            $workspace->add(GridPick::class, new UuidV7(), $of + $ends + [
                'axis' => $figure->along, 'bearing' => null, 'hand' => Hand::Picked->value,
            ], $at);
        }

        return $length->toRfc4122();
    }

    /** @param list<string> $taken ids of the known lengths that nobody has looked at */
    private function agree(Workspace $workspace, Drawing $drawing, array $taken, string $at): void
    {
        $workspace->flush();
        $statements = Statements::of($this->entities, $drawing);
        try {
            $agreed = Agreed::on(
                $statements->observations,
                $statements->frame,
                FitStart::unknown(),
                $drawing->shape()->model(),
                $taken,
            );
        } catch (FittingException) {
            return; // told by the fit that follows
        }
        foreach ($agreed->heldOut as $id) {
            $workspace->set($workspace->get(KnownLength::class, Uuid::fromString($id)), ['heldOut' => true], $at);
        }
        if ($agreed->fit->model !== $drawing->shape()->model()) {
            $workspace->set($drawing, ['model' => $agreed->fit->model->value, 'ownFactor' => null], $at);
        }
    }
}
