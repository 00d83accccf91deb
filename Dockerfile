FROM python:3.11-slim
WORKDIR /opt/teapot
COPY requirements/base.txt requirements/
RUN pip install --no-cache-dir -r requirements/base.txt && useradd --system teapot && install -d -o teapot /var/lib/teapot
COPY . .
ENV TEAPOT_DATA=/var/lib/teapot TEAPOT_COLLECTED=1
USER teapot
VOLUME /var/lib/teapot
EXPOSE 8000
CMD ["sh", "deploy/container.sh"]
