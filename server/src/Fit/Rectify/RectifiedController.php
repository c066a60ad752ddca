<?php

declare(strict_types=1);

namespace Plinth\Server\Fit\Rectify;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Plinth\Server\Fit\DrawingFit;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Who;
use Plinth\Server\Job\Jobs;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\FileStore;
use Plinth\Server\Source\PageState;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/** The straightened picture of a drawing: asked for, stopped, and its tiles. */
#[Route('/api/projects/{project}/drawings/{id}/rectified')]
final readonly class RectifiedController
{
    public function __construct(private ProjectAccess $access, private EntityManagerInterface $entities, private Connection $connection, private FileStore $files, private Jobs $jobs)
    {
    }

    /** How far the picture for the present fit is; asked for if nobody has, or if it was stopped or failed and is wanted after all. */
    #[Needs(Who::Editor)]
    #[Route('', methods: ['POST'])]
    public function ask(Uuid $project, Uuid $id): Response
    {
        [$drawing, $fit] = $this->slanted($project, $id);
        $shape = RectifiedPicture::shapeOf($drawing, $fit);
        $picture = $this->entities->find(RectifiedPicture::class, $drawing->key()->criteria());
        $isThere = null !== $picture && $shape === $picture->shape && match ($picture->state) {
            PageState::Ready => null !== $this->files->straightened($drawing->key(), $shape),
            PageState::Waiting, PageState::Working => true,
            default => false,
        };
        if (!$isThere) {
            $this->connection->executeStatement(
                'INSERT INTO rectified_picture (project, id, shape, state, done, message, width, height, made) VALUES (?, ?, ?, ?, 0, \'\', 0, 0, \'{}\') ON DUPLICATE KEY UPDATE shape = VALUES(shape), state = VALUES(state), done = 0, message = \'\'',
                [...$drawing->key()->binary(), $shape, PageState::Waiting->value],
            );
            $this->jobs->ask(RectifyDrawing::class, $drawing->key(), ['shape' => $shape]);
        }

        return $this->answer($project, $id);
    }

    /** What is known of it without asking for it. */
    #[Needs(Who::Reader)]
    #[Route('', methods: ['GET'])]
    public function show(Uuid $project, Uuid $id): Response
    {
        $this->slanted($project, $id);

        return $this->answer($project, $id);
    }

    #[Needs(Who::Editor)]
    #[Route('/stop', methods: ['POST'])]
    public function stop(Uuid $project, Uuid $id): Response
    {
        $this->slanted($project, $id);
        $this->connection->executeStatement('UPDATE rectified_picture SET state = ? WHERE project = ? AND id = ? AND state IN (?, ?)', [PageState::Stopped->value, $project->toBinary(), $id->toBinary(), PageState::Waiting->value, PageState::Working->value]);

        return $this->answer($project, $id);
    }

    #[Needs(Who::Reader)]
    #[Route('/{shape}/tiles/{z}/{y}/{x}', requirements: ['shape' => '[0-9a-f]{40}', 'z' => '\d{1,2}', 'x' => '\d{1,4}', 'y' => '\d{1,4}'], methods: ['GET'])]
    public function tile(Uuid $project, Uuid $id, string $shape, int $z, int $y, int $x): Response
    {
        $folder = $this->files->straightened($this->access->row(Drawing::class, $project, $id)->key(), $shape) ?? throw Refusal::notFound();
        $suffix = trim((string) @file_get_contents("$folder/suffix"));

        return $this->files->served(\sprintf('%s/tiles/%d/%d/%d%s', $folder, $z, $y, $x, $suffix), '.png' === $suffix ? 'image/png' : 'image/jpeg');
    }

    /** @return array{Drawing, DrawingFit} */
    private function slanted(Uuid $project, Uuid $id): array
    {
        $drawing = $this->access->row(Drawing::class, $project, $id);
        $fit = $this->entities->find(DrawingFit::class, $drawing->key()->criteria()) ?? throw Refusal::notFound();
        if (!$fit->isSlanted()) {
            throw Refusal::conflict('not-slanted', 'This drawing’s fit has no perspective, so its picture needs no straightening.', 'drawing');
        }

        return [$drawing, $fit];
    }

    private function answer(Uuid $project, Uuid $id): Response
    {
        $this->entities->clear();
        [$drawing, $fit] = $this->slanted($project, $id);
        $picture = $this->entities->find(RectifiedPicture::class, $drawing->key()->criteria());
        $shape = RectifiedPicture::shapeOf($drawing, $fit);
        if (null === $picture || $picture->shape !== $shape) {
            return new JsonResponse(['state' => 'missing', 'shape' => $shape, 'done' => 0.0, 'message' => '', 'picture' => null]);
        }

        return new JsonResponse(['state' => $picture->state->value, 'shape' => $shape, 'done' => $picture->done, 'message' => $picture->message, 'picture' => PageState::Ready !== $picture->state ? null : [
            'width' => $picture->width, 'height' => $picture->height, 'pixelToMm' => $picture->pixelToMm($fit->pixelToMm()),
        ]]);
    }
}
