<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Rectify;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Plinth\Server\Fit\DrawingFit;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Write;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\FileStore;
use Plinth\Server\Source\PageState;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/** The straightened picture of a drawing: asked for, stopped, and its tiles. */
#[Route('/api/drawings/{id}/rectified')]
final readonly class RectifiedController
{
    public function __construct(private ProjectAccess $access, private EntityManagerInterface $entities, private Connection $connection, private FileStore $files, private MessageBusInterface $bus)
    {
    }

    /** How far the picture for the present fit is; asked for if nobody has, or if it was stopped or failed and is wanted after all. */
    #[Write]
    #[Route('', methods: ['POST'])]
    public function ask(Uuid $id): Response
    {
        [$drawing, $fit] = $this->slanted($id);
        $shape = RectifiedPicture::shapeOf($drawing, $fit);
        $picture = $this->entities->find(RectifiedPicture::class, $id);
        $isThere = null !== $picture && $shape === $picture->shape && match ($picture->state) {
            PageState::Ready => is_dir($this->files->pageFolder($drawing->page()).'/'.$picture->folder()),
            PageState::Waiting, PageState::Working => true,
            default => false,
        };
        if (!$isThere) {
            $this->connection->executeStatement(
                'INSERT INTO rectified_picture (id, shape, state, done, message, width, height, made) VALUES (?, ?, ?, 0, \'\', 0, 0, \'{}\') ON DUPLICATE KEY UPDATE shape = VALUES(shape), state = VALUES(state), done = 0, message = \'\'',
                [$id->toBinary(), $shape, PageState::Waiting->value],
            );
            $this->bus->dispatch(new RectifyDrawing($id->toRfc4122(), $shape));
        }

        return $this->answer($id);
    }

    /** What is known of it without asking for it. */
    #[Route('', methods: ['GET'])]
    public function show(Uuid $id): Response
    {
        $this->slanted($id);

        return $this->answer($id);
    }

    #[Write]
    #[Route('/stop', methods: ['POST'])]
    public function stop(Uuid $id): Response
    {
        $this->slanted($id);
        $this->connection->executeStatement('UPDATE rectified_picture SET state = ? WHERE id = ? AND state IN (?, ?)', [PageState::Stopped->value, $id->toBinary(), PageState::Waiting->value, PageState::Working->value]);

        return $this->answer($id);
    }

    #[Route('/{shape}/tiles/{z}/{y}/{x}', requirements: ['shape' => '[0-9a-f]{40}', 'z' => '\d{1,2}', 'x' => '\d{1,4}', 'y' => '\d{1,4}'], methods: ['GET'])]
    public function tile(Uuid $id, string $shape, int $z, int $y, int $x): Response
    {
        $drawing = $this->access->row(Drawing::class, $id);
        $folder = 'rectified-'.$id->toRfc4122().'-'.$shape;
        $suffix = @file_get_contents($this->files->pageFolder($drawing->page())."/$folder/suffix");
        if (false === $suffix) {
            throw Refusal::notFound();
        }

        return $this->files->served($drawing->page(), \sprintf('%s/tiles/%d/%d/%d%s', $folder, $z, $y, $x, $suffix), '.png' === $suffix ? 'image/png' : 'image/jpeg');
    }

    /** @return array{Drawing, DrawingFit} */
    private function slanted(Uuid $id): array
    {
        $drawing = $this->access->row(Drawing::class, $id);
        $fit = $this->entities->find(DrawingFit::class, $id) ?? throw Refusal::notFound();
        if (!$fit->isSlanted()) {
            throw Refusal::conflict('not-slanted', 'This drawing’s fit has no perspective, so its picture needs no straightening.', 'drawing');
        }

        return [$drawing, $fit];
    }

    private function answer(Uuid $id): Response
    {
        $this->entities->clear();
        [$drawing, $fit] = $this->slanted($id);
        $picture = $this->entities->find(RectifiedPicture::class, $id);
        $shape = RectifiedPicture::shapeOf($drawing, $fit);
        if (null === $picture || $picture->shape !== $shape) {
            return new JsonResponse(['state' => 'missing', 'shape' => $shape, 'done' => 0.0, 'message' => '', 'picture' => null]);
        }

        return new JsonResponse(['state' => $picture->state->value, 'shape' => $shape, 'done' => $picture->done, 'message' => $picture->message, 'picture' => PageState::Ready !== $picture->state ? null : [
            'width' => $picture->width, 'height' => $picture->height, 'pixelToMm' => $picture->pixelToMm($fit->pixelToMm()),
        ]]);
    }
}
